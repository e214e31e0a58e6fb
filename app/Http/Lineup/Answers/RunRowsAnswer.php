<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

use App\Http\ListOf;

/** What two runs placed otherwise. */
final readonly class RunRowsAnswer
{
    /** @param  list<RunRowAnswer>  $rows */
    public function __construct(#[ListOf(RunRowAnswer::class)] public array $rows) {}
}
