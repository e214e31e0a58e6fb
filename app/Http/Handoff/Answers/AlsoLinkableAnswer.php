<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** Another event of the same folder, and the clip that it means. */
final readonly class AlsoLinkableAnswer
{
    public function __construct(
        public int $track,
        public int $index,
        public string $name,
        public string $clip,
        public string $clip_name,
        public string $reason,
    ) {}
}
