<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

/** The server's clock, milliseconds since 1970. */
final readonly class MomentAnswer
{
    public function __construct(public int $now_ms) {}
}
