<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Models\Clip;
use App\Models\Take;

/**
 * A stretch of sound of a playlist: which channels of which recording, how loud, from where. Ticks: `at` on the playlist's clock,
 * `in` from the recording's first sample.
 */
final readonly class SoundPiece
{
    /**
     * @param  array<int, float>  $channels  those that are heard, by number from 1, to their gain in dB; none where a file says
     *     nothing of its channels
     * @param  float  $driftPpm  by which the picture's clock is faster, where somebody wants the sound to keep step with it
     * @param  int|null  $track  of the cut on which it lies; null where it is of none
     * @param  float  $gainDb  of all of them together, beside their own
     * @param  int  $fadeInTicks  over which it comes in; as short as does not click where nobody said, as is `$fadeOutTicks`
     */
    public function __construct(
        public Clip $clip,
        public ?Take $take,
        public string $name,
        public int $atTicks,
        public int $durationTicks,
        public int $inTicks,
        public array $channels,
        public float $driftPpm,
        public int $fadeInTicks = 0,
        public int $fadeOutTicks = 0,
        public ?int $track = null,
        public float $gainDb = 0.0,
    ) {}
}
