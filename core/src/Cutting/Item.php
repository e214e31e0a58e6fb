<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

/** A stretch of a source on a track. `$sourceStartTicks` counts from the source's first frame. */
final readonly class Item
{
    /**
     * @param  list<array{at_ticks: int, duration_ticks: int, name: string, note: string}>  $markers  from the item's start
     * @param  array<string, mixed>  $metadata  kept and written back as it is
     */
    public function __construct(
        public string $name,
        public Source $source,
        public int $sourceStartTicks,
        public int $durationTicks,
        public int $recordStartTicks,
        public bool $enabled = true,
        public array $markers = [],
        public array $metadata = [],
    ) {}

    public function recordEndTicks(): int
    {
        return $this->recordStartTicks + $this->durationTicks;
    }
}
