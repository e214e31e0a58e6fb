<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Tasks\TaskRun;
use App\Models\LineupRun;
use App\Models\ShootDay;
use App\Models\Task;
use App\Models\User;
use App\Support\Folders;
use App\Support\Live;
use App\Support\Topic;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Facades\File;

/**
 * Lines up a day or a part of it, keeps the run, and cuts the line-up into takes where that was asked for. It makes no media: players
 * take the recorder's channels from where they lie.
 */
final class LineUpDayJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    /** What the run has compared: it outlives its worker, and goes when the run has come to its end. */
    private static function journal(Task $task): string
    {
        File::ensureDirectoryExists(Folders::var('lineup'));

        return Folders::var("lineup/$task->ulid.jsonl");
    }

    public function handle(PlaceClips $place, Runs $runs, CutIntoTakes $cut): void
    {
        TaskRun::of($this->taskId, static function (TaskRun $run) use ($place, $runs, $cut): array {
            $day = ShootDay::query()->findOrFail($run->task->subject['day']);
            $user = User::query()->find($run->task->user_id);
            $ways = array_values(array_filter(explode(',', (string) ($run->task->subject['ways'] ?? 'sound,timecode'))));
            $kept = LineupRun::query()->findOrFail($run->task->subject['run']);
            $journal = self::journal($run->task);
            $count = $place(
                $day,
                $ways,
                static function (int $done, int $total, string $name) use ($run): void {
                    if ($run->task->total !== $total) {
                        $run->expect($total);
                    }
                    $run->at($done, now: 'comparing ' . $name);
                },
                Scope::fromTask($run->task->subject),
                $user?->id,
                $run->task->subject['anchor'] ?? null,
                $journal,
            );
            $runs->end($kept, $count);
            @unlink($journal);
            $taken = $user === null || ($run->task->subject['cut'] ?? true) !== true ? 0 : $cut($day, $user);
            Live::tell($day->production_id, Topic::Lineup);
            Live::tell($day->production_id, Topic::Takes);
            Live::tell($day->production_id, Topic::Clips);

            return $count + [
                'taken' => $taken,
                'message' => sprintf('%d placed, %d of them sure, %d strays.', $count['placed'], $count['sure'], $count['strays']),
            ];
        });
    }
}
