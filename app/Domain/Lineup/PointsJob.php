<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Tasks\TaskRun;
use App\Models\Clip;
use App\Support\Live;
use App\Support\Topic;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Finds claps and closing slates of a clip that was catalogued before they were found on the way. */
final class PointsJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    public function handle(CheckPoints $points): void
    {
        TaskRun::of($this->taskId, static function (TaskRun $run) use ($points): array {
            $clip = Clip::query()->findOrFail($run->task->subject['clip']);
            $points->find($clip);
            Live::tell($clip->production_id, Topic::Clips, ['clip' => $clip->ulid]);

            return ['message' => 'Found.'];
        });
    }
}
