<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** A field about which sources disagree. */
final readonly class DisputeAnswer
{
    /**
     * @param  list<array{id: string, source: string, place: string, value: string|bool, at: int}>  $said
     */
    public function __construct(
        public string $field,
        public string|bool $now,
        public ?string $by,
        public ?string $place,
        public ?int $at,
        public array $said,
    ) {}
}
