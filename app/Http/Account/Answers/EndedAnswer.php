<?php

declare(strict_types=1);

namespace App\Http\Account\Answers;

/** How many sessions were ended. */
final readonly class EndedAnswer
{
    public function __construct(public int $ended) {}
}
