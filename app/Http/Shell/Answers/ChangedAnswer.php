<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

/** How many things were changed. */
final readonly class ChangedAnswer
{
    public function __construct(public int $changed) {}
}
