<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

/** What the floor calls out in a recording; ticks from its start, null for what was not heard. */
final readonly class CallsAnswer
{
    public function __construct(
        public ?string $slate,
        public ?int $slate_ticks,
        public ?float $slate_confidence,
        public ?int $action_ticks,
        public ?int $cut_ticks,
    ) {}

    /** @param  array<string, mixed>  $calls */
    public static function of(array $calls): self
    {
        $slate = $calls['slate'] ?? null;

        return new self(
            $slate === null ? null : "{$slate['setup']}/{$slate['take']}",
            $slate['at_ticks'] ?? null,
            $slate['confidence'] ?? null,
            $calls['actions'][0]['ticks'] ?? null,
            $calls['cut_ticks'] ?? null,
        );
    }
}
