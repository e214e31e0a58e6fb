<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\Lineup\Way;

/**
 * One statement about two clips: where $b begins on $a's own clock, and how their clocks run against each other.
 *
 * @internal
 */
final readonly class Link
{
    /**
     * @param  float  $ppm  how much faster $b's clock runs, parts per million; 0 where nothing is known
     * @param  int  $middleTicks  of $b's own time, where the statement was measured
     * @param  array<string, mixed>  $evidence
     */
    public function __construct(
        public string $a,
        public string $b,
        public int $offsetTicks,
        public Way $way,
        public float $confidence,
        public bool $sure,
        public ?float $ppm = null,
        public int $middleTicks = 0,
        public array $evidence = [],
    ) {}

    public function other(string $id): string
    {
        return $id === $this->a ? $this->b : $this->a;
    }
}
