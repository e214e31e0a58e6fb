<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

use App\Http\ListOf;

/** Where a long recording would be split. */
final readonly class SplitPlanAnswer
{
    /** @param  list<SplitSpanAnswer>  $spans */
    public function __construct(#[ListOf(SplitSpanAnswer::class)] public array $spans) {}
}
