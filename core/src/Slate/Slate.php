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

    /**
     * A slate that a person types over another one: setup, a stroke or a space, take, and the letter of a series. Whether a production
     * can have such a setup is another question.
     *
     * @return self|null null for what is none
     */
    public static function typed(string $text): ?self
    {
        return preg_match('~\A([A-Za-z0-9-]{1,20})\s*[/ ]\s*(\d{1,3})([a-hj-np-z]?)\z~', trim($text), $part) === 1 && (int) $part[2] > 0
            ? new self(setup: strtoupper($part[1]), take: (int) $part[2], part: $part[3])
            : null;
    }

    public function isReadable(): bool
    {
        return $this->setup !== null && $this->take !== null;
    }

    /** The slate of a take so many later, of the same setup. */
    public function later(int $takes): self
    {
        return $takes === 0 ? $this : new self($this->scene, $this->setup, (int) $this->take + $takes, $this->device, '', $this->isPickup);
    }

    /** As people write it: `12A/3`, `12A/3b`. */
    public function label(): string
    {
        return ($this->setup ?? '?') . '/' . ($this->take ?? '?') . $this->part;
    }
}
