<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** How many more events were linked. */
final readonly class LinkedAnswer
{
    public function __construct(public int $count) {}
}
