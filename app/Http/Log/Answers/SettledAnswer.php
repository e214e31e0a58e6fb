<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** How many disagreements were settled. */
final readonly class SettledAnswer
{
    public function __construct(public int $settled) {}
}
