<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Tasks\TaskLost;
use App\Models\Clip;
use App\Support\Live;
use App\Support\Topic;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Lays the sound again under one picture whose place a person changed; one at a time for a picture. */
final class LaySoundJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    private const AGAIN_SECONDS = 5;

    public int $tries = 30;

    public int $maxExceptions = 2;

    public int $timeout = 600;

    public function __construct(public readonly int $clipId) {}

    public function handle(LaySound $lay): void
    {
        $clip = Clip::query()->find($this->clipId);
        if ($clip === null) {
            return;
        }
        try {
            $lay->one($clip);
        } catch (TaskLost) {
            $this->release(self::AGAIN_SECONDS); // another worker makes media of this clip

            return;
        }
        Live::tell($clip->production_id, Topic::Clips, ['clip' => $clip->ulid]);
    }
}
