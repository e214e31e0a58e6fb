<?php

declare(strict_types=1);

namespace App\Domain\Reports;

use App\Domain\Tasks\TaskRun;
use App\Models\Card;
use App\Models\ShootDay;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Facades\File;

/** Makes one PDF in a worker: a day with hundreds of pictures takes longer than a page may wait. */
final class ReportJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    public function handle(Reports $reports): void
    {
        TaskRun::of($this->taskId, static function (TaskRun $run) use ($reports): array {
            $subject = $run->task->subject;
            $day = ShootDay::query()->with('production')->findOrFail($subject['day']);
            $card = $subject['card'] === null ? null : Card::query()->findOrFail($subject['card']);
            $bytes = $reports->make($subject['what'], $day, $card, $subject['about'] ?? null);
            $file = MakeReport::file($run->task);
            File::ensureDirectoryExists(dirname($file));
            file_put_contents($file . '.part', $bytes);
            rename($file . '.part', $file);

            return ['message' => 'It is made.'];
        });
    }
}
