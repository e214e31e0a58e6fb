<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

use App\Http\ListOf;

/** Some rows of the sheet. */
final readonly class TakesAnswer
{
    /** @param  list<TakeRowAnswer>  $takes */
    public function __construct(#[ListOf(TakeRowAnswer::class)] public array $takes) {}
}
