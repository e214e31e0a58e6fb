<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

/** A passage in which something was found. Ticks from the clip's start. */
final readonly class SpokenHitAnswer
{
    /**
     * @param  array{ulid: string, setup: string, take: int, part: string, status: 'none'|'circled'|'hold'|'ng'}|null  $take
     * @param  int  $at_ticks  where the first word that was found begins
     * @param  list<string>  $words
     * @param  list<int>  $found  indexes of the words that were found
     */
    public function __construct(
        public string $passage,
        public string $clip,
        public string $name,
        public string $kind,
        public ?string $device,
        public bool $ready,
        public string $day,
        public int $day_number,
        public ?array $take,
        public int $start_ticks,
        public int $end_ticks,
        public int $at_ticks,
        public ?string $speaker,
        public bool $draft,
        public array $words,
        public array $found,
    ) {}
}
