<?php

declare(strict_types=1);

namespace App\Domain\Points;

/** Something about a day that a person has to look at: one sentence, the evidence, the place, and the one step that ends it. */
final readonly class OpenPoint
{
    /**
     * @param  string  $key  stays the same while the cause does
     * @param  'fault'|'warning'  $weight
     * @param  array{stage: string, take?: string, clip?: string, card?: string}  $place
     * @param  list<array{name: string, label: string}>  $fixes  first the likeliest
     * @param  list<string>  $awaits  kinds of task: while one of them runs on the day, the point may be true only because of it
     */
    public function __construct(
        public string $key,
        public string $weight,
        public string $title,
        public string $evidence,
        public array $place,
        public array $fixes = [],
        public array $awaits = [],
    ) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return array_diff_key(get_object_vars($this), ['awaits' => 0]);
    }
}
