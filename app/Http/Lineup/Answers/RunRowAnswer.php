<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** A clip that one run placed otherwise than another. */
final readonly class RunRowAnswer
{
    public function __construct(
        public string $clip,
        public string $name,
        public ?string $device,
        public ?RunPlaceAnswer $before,
        public ?RunPlaceAnswer $after,
        public ?int $moved_ticks,
    ) {}
}
