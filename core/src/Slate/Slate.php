<?php

declare(strict_types=1);

namespace Cartella\Core\Slate;

/** What a slate says: scene, setup, take from 1, and the device where it is named. Null is what it does not say. */
final readonly class Slate
{
    public function __construct(
        public ?string $scene = null,
        public ?string $setup = null,
        public ?int $take = null,
        public ?string $device = null,
    ) {
    }

    public function isReadable(): bool
    {
        return $this->setup !== null && $this->take !== null;
    }

    /** As people write it: `12A/3`. */
    public function label(): string
    {
        return ($this->setup ?? '?').'/'.($this->take ?? '?');
    }
}
