<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

/** Of one scene: lines of its script, those that were said, and reads of all of them. */
final readonly class LineSumAnswer
{
    public function __construct(public int $lines, public int $said, public int $reads) {}
}
