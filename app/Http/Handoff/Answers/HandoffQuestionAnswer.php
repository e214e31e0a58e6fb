<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** What the editing team asks, what it is about, and the answer if there is one. */
final readonly class HandoffQuestionAnswer
{
    public function __construct(
        public string $ulid,
        public string $question,
        public ?string $about,
        public ?string $take,
        public ?string $clip,
        public ?string $path,
        public ?string $by,
        public ?string $at,
        public ?string $answer,
        public ?string $answered_by,
    ) {}
}
