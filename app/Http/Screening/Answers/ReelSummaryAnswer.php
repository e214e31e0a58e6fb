<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\SequenceStep;
use App\Models\StoredSequence;

/** A reel in the list of its day. */
final readonly class ReelSummaryAnswer
{
    /**
     * @param  string  $words  by what it is made
     * @param  string  $of  where its takes come from
     * @param  string  $shows  how many takes, or pieces of them
     * @param  string|null  $changed  what was otherwise when it was built again last
     * @param  string|null  $changed_at
     * @param  int  $links  by which it can be watched from afar now
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public string $words,
        public string $of,
        public string $shows,
        public int $running_ticks,
        public ?string $made_at,
        public ?string $first_clip,
        public ?string $changed,
        public ?string $changed_at,
        public int $links,
    ) {}

    /**
     * @param  array{reel: StoredSequence, first: string|null, again: SequenceStep|null, words: string, of: string, shows: string,
     *     links: int}  $one
     */
    public static function make(array $one): self
    {
        return new self(
            $one['reel']->ulid,
            $one['reel']->name,
            $one['words'],
            $one['of'],
            $one['shows'],
            $one['reel']->running_ticks,
            $one['reel']->created_at?->toIso8601String(),
            $one['first'],
            $one['again']?->label,
            $one['again']?->created_at?->toIso8601String(),
            $one['links'],
        );
    }
}
