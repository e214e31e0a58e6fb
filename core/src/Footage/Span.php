<?php

declare(strict_types=1);

namespace Cartella\Core\Footage;

/** A stretch of something, ticks from its first frame, out exclusive; it lasts longer than nothing. */
final readonly class Span
{
    /** @throws InvalidReference if it begins before its first frame or lasts no time */
    public function __construct(public int $inTicks, public int $outTicks)
    {
        if ($inTicks < 0 || $outTicks <= $inTicks) {
            throw InvalidReference::because('a stretch begins inside, and ends after it begins');
        }
    }

    public function durationTicks(): int
    {
        return $this->outTicks - $this->inTicks;
    }

    public function isInside(int $durationTicks): bool
    {
        return $this->outTicks <= $durationTicks;
    }
}
