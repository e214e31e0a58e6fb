<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

use App\Http\ListOf;

/** Names that a pattern would give. */
final readonly class NamesAnswer
{
    /** @param  list<GivenNameAnswer>  $names  the first of them */
    public function __construct(
        #[ListOf(GivenNameAnswer::class)] public array $names,
        public int $total,
        public int $changes,
        public int $bad,
    ) {}
}
