<?php

declare(strict_types=1);

namespace Cartella\Core\Slate;

/**
 * What a slate says: scene, setup, take from 1, and the device where it is named. Null is what it does not say.
 *
 * A series take, rolled again without a new slate, carries its small letter in `part` (`4a`, `4b`).
 */
final readonly class Slate
{
    public function __construct(
        public ?string $scene = null,
        public ?string $setup = null,
        public ?int $take = null,
        public ?string $device = null,
        public string $part = '',
        public bool $isPickup = false,
    ) {}

    public function isReadable(): bool
    {
        return $this->setup !== null && $this->take !== null;
    }

    /** As people write it: `12A/3`, `12A/3b`. */
    public function label(): string
    {
        return ($this->setup ?? '?') . '/' . ($this->take ?? '?') . $this->part;
    }
}
