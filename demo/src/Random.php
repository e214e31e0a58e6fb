<?php

declare(strict_types=1);

namespace Cartella\Demo;

/** A small seeded generator (Park and Miller 1988), so that the demo does not depend on any library's stream. */
final class Random
{
    public function __construct(private int $state)
    {
        $this->state = max(1, $state % 2_147_483_647);
    }

    /** A whole number from $low to $high, both inclusive. */
    public function between(int $low, int $high): int
    {
        $this->state = ($this->state * 48_271) % 2_147_483_647;

        return $low + ($this->state % ($high - $low + 1));
    }

    /** A number from 0 to below 1. */
    public function unit(): float
    {
        return $this->between(0, 2_147_483_645) / 2_147_483_646;
    }
}
