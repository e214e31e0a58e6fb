<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** A stretch of a long recording, ticks from its first frame. */
final readonly class SplitSpanAnswer
{
    public function __construct(public int $from, public int $to, public ?string $slate) {}
}
