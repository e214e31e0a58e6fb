<?php

declare(strict_types=1);

namespace App\Http\Day\Answers;

/** Something that wants a person, where it is, and what mends it. */
final readonly class OpenPointAnswer
{
    /**
     * @param  'fault'|'warning'  $weight
     * @param  array{stage: string, take?: string, clip?: string, card?: string}  $place
     * @param  list<array{name: string, label: string}>  $fixes
     */
    public function __construct(
        public string $key,
        public string $weight,
        public string $title,
        public string $evidence,
        public array $place,
        public array $fixes,
    ) {}
}
