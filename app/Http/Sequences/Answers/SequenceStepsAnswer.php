<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Http\ListOf;

/** Steps one after the other; null where there are more than a page follows, which then reads the whole anew. */
final readonly class SequenceStepsAnswer
{
    public const MOST = 60;

    /** @param  list<SequenceStepAnswer>|null  $steps */
    public function __construct(#[ListOf(SequenceStepAnswer::class)] public ?array $steps) {}
}
