<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

use App\Models\Marker;
use App\Support\Clock;

/** A marker of one of a take's clips. Ticks from the clip's first frame. */
final readonly class TakeMarkerAnswer
{
    /** @param  int|null  $out_ticks  null for a place */
    public function __construct(
        public string $ulid,
        public string $clip,
        public string $clip_name,
        public ?string $device,
        public int $in_ticks,
        public ?int $out_ticks,
        public ?string $timecode,
        public string $name,
        public string $note,
        public ?string $by,
    ) {}

    public static function of(Marker $marker): self
    {
        $clip = $marker->clip;

        return new self(
            $marker->ulid,
            $clip->ulid,
            $clip->title(),
            $clip->device?->letter,
            $marker->in_ticks,
            $marker->out_ticks,
            $clip->start_ticks === null
                ? null
                : Clock::label($clip->start_ticks + $marker->in_ticks, $clip->rate() ?? $clip->production->rate()),
            $marker->name,
            $marker->note,
            $marker->user?->name,
        );
    }
}
