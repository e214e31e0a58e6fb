<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\ListOf;

/** A package for the editing team. */
final readonly class HandoffAnswer
{
    /**
     * @param  'packing'|'delivered'|'accepted'|'queried'|'failed'|'stopped'  $state
     * @param  array{files: int, bytes: int, clips: int, missing: list<string>, unmixed?: list<string>}|null  $summary
     * @param  list<WaivedAnswer>  $waived
     * @param  list<HandoffQuestionAnswer>  $questions
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
        #[ListOf(WaivedAnswer::class)] public array $waived,
        #[ListOf(HandoffQuestionAnswer::class)] public array $questions,
        public bool $newest,
    ) {}
}
