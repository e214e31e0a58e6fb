<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** How many channels got a name of their own. */
final readonly class SplitAnswer
{
    public function __construct(public int $made) {}
}
