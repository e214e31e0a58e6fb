<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** An open point that went along as it is, and why. */
final readonly class WaivedAnswer
{
    public function __construct(
        public string $day,
        public string $point,
        public string $title,
        public string $reason,
        public string $by,
        public string $at,
    ) {}
}
