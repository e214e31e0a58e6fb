<?php

declare(strict_types=1);

namespace App\Domain\Day;

/** Something about a day that a person has to look at: one sentence, the evidence, the place, and the one step that ends it. */
final readonly class OpenPoint
{
    /**
     * @param  string  $key  stays the same while the cause does
     * @param  'fault'|'warning'  $weight
     * @param  array{stage: string, take?: string, clip?: string, card?: string}  $place
     * @param  list<array{name: string, label: string}>  $fixes  first the likeliest
     */
    public function __construct(
        public string $key,
        public string $weight,
        public string $title,
        public string $evidence,
        public array $place,
        public array $fixes = [],
    ) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return get_object_vars($this);
    }
}
