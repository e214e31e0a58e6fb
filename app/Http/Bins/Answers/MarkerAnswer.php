<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

use App\Models\Marker;

/** A named place of a clip, or a stretch of it. Ticks from its first frame. */
final readonly class MarkerAnswer
{
    /**
     * @param  'file'|'person'  $kind  who said it
     * @param  int|null  $out_ticks  null for a place
     * @param  'picture'|'sound'|'acting'|'continuity'|'effects'|'music'|null  $about
     */
    public function __construct(
        public string $ulid,
        public string $kind,
        public int $in_ticks,
        public ?int $out_ticks,
        public string $name,
        public string $note,
        public ?string $by,
        public ?string $about,
    ) {}

    public static function of(Marker $marker): self
    {
        return new self(
            $marker->ulid,
            $marker->kind->value,
            $marker->in_ticks,
            $marker->out_ticks,
            $marker->name,
            $marker->note,
            $marker->user?->name,
            $marker->about?->value,
        );
    }
}
