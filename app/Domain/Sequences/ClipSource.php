<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Models\Clip;
use Cartella\Core\Cutting\Source;
use Cartella\Core\Time\FrameRate;

/** A clip as the source of an item: known by its ULID, with its own clock and the roll of its card. */
final class ClipSource
{
    /** @param  string|null  $path  where a package keeps its media */
    public static function of(Clip $clip, FrameRate $usual, ?string $path = null): Source
    {
        return new Source(
            $clip->ulid,
            $clip->name,
            $path,
            $clip->card?->roll,
            (int) $clip->start_ticks,
            $clip->playableTicks(),
            $clip->rate() ?? $usual,
        );
    }
}
