<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

/** How much one person said of the takes of a reel; stars on the mean. */
final readonly class ReelPersonAnswer
{
    public function __construct(public string $name, public int $notes, public int $rated, public ?float $stars) {}
}
