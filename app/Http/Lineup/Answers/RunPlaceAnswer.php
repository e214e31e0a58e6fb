<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** Where a run left a clip. */
final readonly class RunPlaceAnswer
{
    public function __construct(
        public ?int $start_ticks,
        public ?string $way,
        public bool $sure,
        public bool $locked,
        public ?string $reason,
    ) {}
}
