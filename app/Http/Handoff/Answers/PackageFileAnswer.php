<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** A file of a delivered package, and which clip or take it is about. */
final readonly class PackageFileAnswer
{
    public function __construct(
        public string $path,
        public int $bytes,
        public ?string $clip,
        public ?string $take,
        public ?string $label,
    ) {}
}
