<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\Marker;

/** A marker that a piece of a reel carries with it, on one of its pictures. Ticks from that clip's first frame. */
final readonly class ReelMarkerAnswer
{
    /** @param  int|null  $out_ticks  null for a place */
    public function __construct(
        public string $ulid,
        public string $clip,
        public int $in_ticks,
        public ?int $out_ticks,
        public string $name,
    ) {}

    public static function of(Marker $marker, string $clip): self
    {
        return new self($marker->ulid, $clip, $marker->in_ticks, $marker->out_ticks, $marker->name);
    }
}
