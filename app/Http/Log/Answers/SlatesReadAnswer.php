<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** What came of reading the slates: clips by where their slate was read, those that say none, and new takes. */
final readonly class SlatesReadAnswer
{
    public function __construct(
        public int $read,
        public int $from_recorder,
        public int $from_names,
        public int $silent,
        public int $takes,
    ) {}
}
