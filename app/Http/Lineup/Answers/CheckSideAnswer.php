<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

use App\Http\Shell\Answers\RateAnswer;

/** One of the two clips that are looked at together. */
final readonly class CheckSideAnswer
{
    public function __construct(
        public string $clip,
        public string $name,
        public ?string $device,
        public string $kind,
        public ?int $start_ticks,
        public ?float $drift_ppm,
        public int $duration_ticks,
        public RateAnswer $rate,
        public string $media_version,
        public bool $has_sound,
        public ?int $frames,
        public ?ClipLookAnswer $look,
    ) {}
}
