<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup;

/** Where one clip lies on the common clock, how that was found and how sure it is. */
final class Placement
{
    /**
     * @param  int  $startTicks  first sample on the clock of its group's zero
     * @param  float  $confidence  0 to 1
     * @param  float|null  $driftPpm  positive where the clip's own clock runs fast
     * @param  array<string, mixed>  $evidence  what a person needs to judge it: pair, heights, windows, second place
     */
    public function __construct(
        public readonly string $id,
        public readonly string $device,
        public int $startTicks,
        public Way $way,
        public float $confidence,
        public bool $sure,
        public ?float $driftPpm,
        public int $group,
        public array $evidence = [],
    ) {}
}
