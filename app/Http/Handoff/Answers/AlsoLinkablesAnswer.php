<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\ListOf;

/** What could be linked in the same way. */
final readonly class AlsoLinkablesAnswer
{
    /** @param  list<AlsoLinkableAnswer>  $others */
    public function __construct(#[ListOf(AlsoLinkableAnswer::class)] public array $others) {}
}
