<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\Bins\Answers\BinTreeAnswer;
use App\Http\ListOf;

/** The packages of a production, and the bins that can be handed off. */
final readonly class HandoffsAnswer
{
    /** @param  list<HandoffAnswer>  $handoffs */
    public function __construct(#[ListOf(HandoffAnswer::class)] public array $handoffs, public BinTreeAnswer $bins) {}
}
