<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\ListOf;

/** Hand-offs, the newest first, for programs of others. */
final readonly class ReadHandoffsAnswer
{
    /** @param  list<HandoffAnswer>  $handoffs */
    public function __construct(#[ListOf(HandoffAnswer::class)] public array $handoffs) {}
}
