<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\ListOf;

/** The lists that came back, newest first. */
final readonly class ReceivedListsAnswer
{
    /** @param  list<ReceivedListAnswer>  $lists */
    public function __construct(#[ListOf(ReceivedListAnswer::class)] public array $lists) {}
}
