<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** What of a list could not be read, and where. */
final readonly class ListProblemAnswer
{
    public function __construct(public string $where, public string $reason) {}
}
