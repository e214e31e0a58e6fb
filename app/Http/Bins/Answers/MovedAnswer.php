<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** How many were not in the bin yet. */
final readonly class MovedAnswer
{
    public function __construct(public int $moved) {}
}
