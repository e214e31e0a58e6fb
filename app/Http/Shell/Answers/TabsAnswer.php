<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

/** Counts for the tabs of the spine. */
final readonly class TabsAnswer
{
    /**
     * @param  array<string, int>  $by_stage  open points
     * @param  array{safe: int, all: int}  $cards
     * @param  string|null  $handoff  how the newest package stands
     */
    public function __construct(
        public int $open,
        public array $by_stage,
        public array $cards,
        public int $takes,
        public int $placed,
        public int $to_place,
        public ?string $handoff,
    ) {}
}
