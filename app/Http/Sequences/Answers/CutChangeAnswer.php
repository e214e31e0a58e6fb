<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

/** One difference of two cuts. */
final readonly class CutChangeAnswer
{
    /** @param  'new'|'gone'|'moved'|'longer'|'shorter'|'slipped'|'speed'  $kind */
    public function __construct(
        public string $kind,
        public string $name,
        public ?string $was_at,
        public ?string $is_at,
        public int $at_ticks,
        public ?string $clip,
        public string $words,
    ) {}
}
