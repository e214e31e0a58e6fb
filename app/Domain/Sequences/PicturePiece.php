<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Models\Clip;
use App\Models\Take;

/** A stretch of picture of a playlist. Ticks: `at` on the playlist's clock, `in` from the clip's first frame. */
final readonly class PicturePiece
{
    /** @param  array<string, mixed>  $facts  what the item keeps beside: of a reel where the slate closes and the action begins */
    public function __construct(
        public Clip $clip,
        public ?Take $take,
        public string $name,
        public int $atTicks,
        public int $durationTicks,
        public int $inTicks,
        public array $facts = [],
    ) {}
}
