<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** Patterns, in their order. */
final readonly class PatternsAnswer
{
    /** @param  list<string>  $patterns */
    public function __construct(public array $patterns) {}
}
