<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** A place for copies, as it is now. */
final readonly class StoreAnswer
{
    public function __construct(
        public string $key,
        public string $name,
        public ?int $free_bytes,
        public bool $is_there,
        public ?int $device,
    ) {}
}
