<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** A day of the shoot, for programs of others. */
final readonly class ReadDayAnswer
{
    public function __construct(public string $ulid, public int $number, public string $date) {}
}
