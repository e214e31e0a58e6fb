<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** How much lies in the rule bins of a production. */
final readonly class BinCountsAnswer
{
    /** @param  array<string, int>  $counts  by key */
    public function __construct(public array $counts) {}
}
