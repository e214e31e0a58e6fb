<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** How many clips went back to a run, and how many a person's decision holds. */
final readonly class WentBackAnswer
{
    public function __construct(public int $moved, public int $kept) {}
}
