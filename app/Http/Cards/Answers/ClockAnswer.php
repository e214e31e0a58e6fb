<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** By how much a clock is corrected. */
final readonly class ClockAnswer
{
    public function __construct(public int $correction_ticks) {}
}
