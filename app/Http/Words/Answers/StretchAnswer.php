<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

/** A stretch of a clip; ticks from its first frame, the end exclusive. */
final readonly class StretchAnswer
{
    public function __construct(public int $in_ticks, public int $out_ticks) {}
}
