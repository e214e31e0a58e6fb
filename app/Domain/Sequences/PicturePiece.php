<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Models\Clip;
use App\Models\Take;

/** A stretch of picture of a playlist. Ticks: `at` on the playlist's clock, `in` from the clip's first frame. */
final readonly class PicturePiece
{
    public function __construct(
        public Clip $clip,
        public ?Take $take,
        public string $name,
        public int $atTicks,
        public int $durationTicks,
        public int $inTicks,
    ) {}
}
