<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\SequenceStep;
use App\Models\StoredSequence;

/** A reel in the list of its day. */
final readonly class ReelSummaryAnswer
{
    /**
     * @param  string|null  $changed  what was otherwise when it was built again last
     * @param  string|null  $changed_at
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public bool $circled_only,
        public int $items,
        public int $running_ticks,
        public ?string $made_at,
        public ?string $first_clip,
        public ?string $changed,
        public ?string $changed_at,
    ) {}

    public static function of(StoredSequence $reel, ?string $firstClip, ?SequenceStep $again): self
    {
        return new self(
            $reel->ulid,
            $reel->name,
            (bool) ($reel->recipe['circled_only'] ?? false),
            $reel->items,
            $reel->running_ticks,
            $reel->created_at?->toIso8601String(),
            $firstClip,
            $again?->label,
            $again?->created_at?->toIso8601String(),
        );
    }
}
