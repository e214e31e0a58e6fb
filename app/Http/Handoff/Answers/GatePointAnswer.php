<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** An open point about what is to go. */
final readonly class GatePointAnswer
{
    /**
     * @param  'fault'|'warning'  $weight
     * @param  array{stage: string, take?: string, clip?: string, card?: string}  $place
     * @param  list<array{name: string, label: string}>  $fixes
     */
    public function __construct(
        public string $day,
        public int $number,
        public string $key,
        public string $weight,
        public string $title,
        public string $evidence,
        public array $place,
        public array $fixes,
    ) {}
}
