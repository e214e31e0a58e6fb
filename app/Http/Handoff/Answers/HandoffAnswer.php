<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** A package for the editing team. */
final readonly class HandoffAnswer
{
    /**
     * @param  'packing'|'delivered'|'accepted'|'queried'|'failed'  $state
     * @param  array{files: int, bytes: int, clips: int, reel: string|null, missing: list<string>, unmixed?: list<string>}|null  $summary
     */
    public function __construct(
        public string $ulid,
        public int $number,
        public string $title,
        public string $folder,
        public string $state,
        public ?array $summary,
        public ?string $made_by,
        public ?string $made_at,
        public ?string $delivered_at,
        public ?string $answered_by,
        public ?string $answered_at,
        public ?string $query,
    ) {}
}
