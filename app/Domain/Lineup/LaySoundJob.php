<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Models\Clip;
use App\Support\Live;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;

/** Lays the sound again under one picture whose place a person changed. */
final class LaySoundJob implements ShouldQueue
{
    use Dispatchable, Queueable;

    public int $tries = 2;

    public int $timeout = 600;

    public function __construct(public readonly int $clipId)
    {
    }

    public function handle(LaySound $lay): void
    {
        $clip = Clip::query()->find($this->clipId);
        if ($clip !== null) {
            $lay->one($clip);
            Live::tell($clip->production_id, 'clips', ['clip' => $clip->ulid]);
        }
    }
}
