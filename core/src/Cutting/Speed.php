<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;

/** How fast an item runs through its source, as an exact fraction: `1/2` is slow motion at half speed. */
final readonly class Speed
{
    private const LARGEST = 1000;

    public function __construct(public int $num = 1, public int $den = 1)
    {
        if ($num < 1 || $den < 1 || $num > self::LARGEST || $den > self::LARGEST) {
            throw InvalidSequence::field('speed', 'is not a fraction of whole numbers from 1 to ' . self::LARGEST);
        }
    }

    /** @throws InvalidSequence */
    public static function parse(string $text): self
    {
        return preg_match('/\A(\d{1,4})(?:\/(\d{1,4}))?\z/', $text, $part) === 1
            ? new self((int) $part[1], (int) ($part[2] ?? 1))
            : throw InvalidSequence::field('speed', 'is not a fraction');
    }

    public function isPlain(): bool
    {
        return $this->num === $this->den;
    }

    /** Ticks of the source that so many ticks of the item show, rounded up, so that an end never lies too early. */
    public function ofSource(int $ticks): int
    {
        if ($this->isPlain()) {
            return $ticks;
        }
        $whole = intdiv($ticks, $this->den) * $this->num;

        return $whole + (int) ceil((($ticks % $this->den) * $this->num) / $this->den);
    }

    public function __toString(): string
    {
        return $this->num . '/' . $this->den;
    }
}
