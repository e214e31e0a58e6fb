<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\Take;
use App\Models\TakeRating;

/** The take that a piece of a reel shows, and what is known of it beside the notes of screenings. */
final readonly class ReelTakeAnswer
{
    /**
     * @param  'none'|'circled'|'hold'|'ng'  $status
     * @param  list<ReelSaidAnswer>  $said  notes that came with it, each with its source
     * @param  list<ReelRatingAnswer>  $ratings
     */
    public function __construct(
        public string $ulid,
        public string $setup,
        public int $take,
        public string $part,
        public string $scene,
        public string $status,
        public string $description,
        public string $size,
        public ?string $log_note,
        public array $said,
        public array $ratings,
    ) {}

    /** @param  int|null  $who  who asks; null for somebody from outside, who is told nothing that was said */
    public static function of(Take $take, ?int $who): self
    {
        $said = $who === null ? [] : $take->saidFacts->where('field', 'notes')->map(ReelSaidAnswer::of(...))->values()->all();
        $texts = array_column($said, 'text');

        return new self(
            $take->ulid,
            $take->setup,
            $take->take,
            $take->part,
            $take->scene,
            $who === null ? 'none' : $take->status,
            (string) $take->description,
            (string) $take->size,
            $who === null || in_array((string) $take->notes, $texts, true) ? null : $take->notes,
            $said,
            $who === null
                ? []
                : $take->ratings->map(static fn(TakeRating $rating): ReelRatingAnswer => ReelRatingAnswer::of($rating, $who))->all(),
        );
    }
}
