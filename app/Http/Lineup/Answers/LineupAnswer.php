<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

use App\Http\ListOf;
use App\Http\Shell\Answers\TaskAnswer;

/** The line-up of a day. */
final readonly class LineupAnswer
{
    /**
     * @param  list<PlacedAnswer>  $placements
     * @param  list<StrayAnswer>  $strays
     * @param  list<array{device: string, from_ticks: int, to_ticks: int}>  $holes  moments that a device missed
     * @param  list<array{device: string, learned_ticks: int|null, applied_ticks: int|null, votes: int}>  $clocks
     */
    public function __construct(
        #[ListOf(PlacedAnswer::class)] public array $placements,
        #[ListOf(StrayAnswer::class)] public array $strays,
        public array $clocks,
        public array $holes,
        public ?TaskAnswer $task,
    ) {}
}
