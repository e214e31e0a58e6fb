<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** What was looked at of a copy before its card was released. */
final readonly class ReleasedCopyAnswer
{
    /**
     * @param  list<array{path: string, bytes: int, from: 'medium'|'cache'}>|null  $sample
     */
    public function __construct(
        public string $store,
        public string $path,
        public ?string $manifest,
        public ?string $c4,
        public ?string $checked_at,
        public ?int $device = null,
        public ?int $files = null,
        public ?int $size_bytes = null,
        public ?array $sample = null,
    ) {}
}
