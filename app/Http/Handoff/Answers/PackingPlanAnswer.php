<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\ListOf;

/** A packing list: what would go, and what stands open about it. */
final readonly class PackingPlanAnswer
{
    /**
     * @param  int|null  $since  the newest hand-off that was accepted
     * @param  list<PackingRowAnswer>  $rows
     * @param  list<GatePointAnswer>  $points
     * @param  list<string>  $columns  that the log can have
     */
    public function __construct(
        public ?int $since,
        public int $clips,
        public int $takes,
        public int $bytes,
        public ?int $free_bytes,
        #[ListOf(PackingRowAnswer::class)] public array $rows,
        #[ListOf(GatePointAnswer::class)] public array $points,
        public array $columns,
    ) {}
}
