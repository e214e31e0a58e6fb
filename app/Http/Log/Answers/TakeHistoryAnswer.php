<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

use App\Http\ListOf;

/** The steps of a take, newest first. */
final readonly class TakeHistoryAnswer
{
    /** @param  list<TakeStepAnswer>  $steps */
    public function __construct(#[ListOf(TakeStepAnswer::class)] public array $steps) {}
}
