<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Http\ListOf;

/** Who did what to a cut, the newest first. */
final readonly class SequenceHistoryAnswer
{
    /** @param  list<SequenceHistoryStepAnswer>  $steps */
    public function __construct(#[ListOf(SequenceHistoryStepAnswer::class)] public array $steps) {}
}
