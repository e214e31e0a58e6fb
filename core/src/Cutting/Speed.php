<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;

/**
 * How fast an item runs through its source, as an exact fraction: `1/2` is slow motion at half speed, `0/1` one frame that
 * stands, `-1/1` backwards from where the source begins to be read.
 */
final readonly class Speed
{
    public const LARGEST = 1000;

    public function __construct(public int $num = 1, public int $den = 1)
    {
        if ($den < 1 || abs($num) > self::LARGEST || $den > self::LARGEST) {
            throw InvalidSequence::field('speed', 'is not a fraction of whole numbers to ' . self::LARGEST);
        }
    }

    /** @throws InvalidSequence */
    public static function parse(string $text): self
    {
        return preg_match('/\A(-?\d{1,4})(?:\/(\d{1,4}))?\z/', $text, $part) === 1
            ? new self((int) $part[1], (int) ($part[2] ?? 1))
            : throw InvalidSequence::field('speed', 'is not a fraction');
    }

    public function isPlain(): bool
    {
        return $this->num === $this->den;
    }

    /**
     * Ticks of the source that so many ticks of the item show, below zero backwards; rounded away from zero, so that an end
     * never lies too early.
     */
    public function ofSource(int $ticks): int
    {
        if ($this->isPlain()) {
            return $ticks;
        }
        $num = abs($this->num);
        $shown = intdiv($ticks, $this->den) * $num + (int) ceil((($ticks % $this->den) * $num) / $this->den);

        return $this->num < 0 ? -$shown : $shown;
    }

    /** Whether so long an item that begins there reads nothing outside its source; all in ticks. */
    public function fits(int $sourceStartTicks, int $durationTicks, int $sourceTicks): bool
    {
        $end = $sourceStartTicks + $this->ofSource($durationTicks);

        return min($sourceStartTicks, $end) >= 0 && max($sourceStartTicks, $end) <= $sourceTicks;
    }

    public function __toString(): string
    {
        return $this->num . '/' . $this->den;
    }
}
