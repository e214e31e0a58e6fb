<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** A look of the production; numbers as the ASC CDL has them. */
final readonly class LookAnswer
{
    /**
     * @param  array{int, int, int}  $slope
     * @param  array{int, int, int}  $offset
     * @param  array{int, int, int}  $power
     * @param  list<string>|null  $devices
     */
    public function __construct(
        public array $slope,
        public array $offset,
        public array $power,
        public float $saturation,
        public string $ulid,
        public string $name,
        public ?string $source,
        public ?array $devices = null,
    ) {}
}
