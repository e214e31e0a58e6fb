<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Tasks\TaskRun;
use App\Models\StoredSequence;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Writes the file of one reel. */
final class ExportJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    public function handle(ReelFile $file): void
    {
        TaskRun::of($this->taskId, static function (TaskRun $run) use ($file): array {
            $reel = StoredSequence::query()->with('production')->findOrFail($run->task->subject['reel']);

            return $file->write($reel, $run);
        });
    }
}
