<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** A clip inside a take: one of its angles, or a recorder's file. Ticks. */
final readonly class AngleAnswer
{
    public function __construct(
        public string $clip,
        public ?string $device,
        public string $name,
        public string $kind,
        public ?int $duration_ticks,
        public bool $ready,
    ) {}
}
