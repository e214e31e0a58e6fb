<?php

declare(strict_types=1);

namespace App\Http\Assembly\Answers;

/** What several cameras saw at once; ticks of the line-up's clock. */
final readonly class EventAnswer
{
    /** @param  list<string>  $letters */
    public function __construct(
        public string $key,
        public string $label,
        public string $description,
        public int $group,
        public int $from,
        public int $to,
        public array $letters,
        public int $clips,
    ) {}
}
