<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Http\ListOf;

/** The reels of a day, newest first. */
final readonly class ReelsAnswer
{
    /** @param  list<ReelSummaryAnswer>  $reels */
    public function __construct(#[ListOf(ReelSummaryAnswer::class)] public array $reels) {}
}
