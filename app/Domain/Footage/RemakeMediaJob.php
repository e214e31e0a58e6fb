<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Tasks\TaskRun;
use App\Models\Clip;
use App\Support\Live;
use App\Support\Topic;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Makes the proxy, pictures, waveform and guide sound of one clip anew, from a copy of its card. */
final class RemakeMediaJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    public function handle(ClipMedia $media, Stores $stores): void
    {
        TaskRun::of($this->taskId, static function (TaskRun $run) use ($media, $stores): array {
            $clip = Clip::query()->with('card.copies')->findOrFail($run->task->subject['clip']);
            $run->expect(1);
            $media->make($clip, $stores->filesOf($clip));
            // What an earlier try said of the file holds no longer.
            $clip->update(['problems' => null]);
            MediaMade::dispatch($clip);
            Live::tell($clip->production_id, Topic::Clips, ['clip' => $clip->ulid]);

            return ['message' => "The proxy of $clip->name is made."];
        });
    }
}
