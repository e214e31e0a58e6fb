<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

use App\Models\Passage;

/** A paragraph of what is said. Ticks from the recording's start. */
final readonly class PassageAnswer
{
    /**
     * @param  list<list<string|int|float|null>>  $words  each: text, start, end, confidence 0 to 1 or null, what a machine had heard where
     *     a person wrote something else
     * @param  bool  $draft  heard by a general model, and to be read with care
     * @param  string|null  $by  who corrected it last
     */
    public function __construct(
        public string $ulid,
        public int $start_ticks,
        public int $end_ticks,
        public ?string $speaker,
        public bool $draft,
        public array $words,
        public ?string $by,
        public ?string $edited_at,
    ) {}

    public static function of(Passage $passage): self
    {
        return new self(
            $passage->ulid,
            $passage->start_ticks,
            $passage->end_ticks,
            $passage->speaker,
            $passage->is_draft,
            $passage->words,
            $passage->editor?->name,
            $passage->edited_at?->toIso8601String(),
        );
    }
}
