<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** Whether a place stays whatever a run finds. */
final readonly class LockedAnswer
{
    public function __construct(public bool $locked) {}
}
