<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

use App\Http\ListOf;

/** The runs of a day, newest first. */
final readonly class RunsAnswer
{
    /** @param  list<LineupRunAnswer>  $runs */
    public function __construct(#[ListOf(LineupRunAnswer::class)] public array $runs) {}
}
