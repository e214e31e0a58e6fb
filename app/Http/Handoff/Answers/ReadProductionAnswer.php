<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\ListOf;

/** A production, for programs of others. */
final readonly class ReadProductionAnswer
{
    /** @param  list<ReadDayAnswer>  $days */
    public function __construct(
        public string $ulid,
        public string $name,
        public string $rate,
        #[ListOf(ReadDayAnswer::class)] public array $days,
    ) {}
}
