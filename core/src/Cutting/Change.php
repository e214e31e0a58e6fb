<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

/** One difference of two cuts: the item as it was and as it is; null where it is new, or gone. */
final readonly class Change
{
    public function __construct(public ChangeKind $kind, public ?Item $was, public ?Item $is) {}

    /** Where it stands in the newer cut, or stood in the older one; ticks. */
    public function atTicks(): int
    {
        return $this->is->recordStartTicks ?? ($this->was->recordStartTicks ?? 0);
    }

    /** By how much its head begins earlier in the source, ticks; below zero later. */
    public function headTicks(): int
    {
        return $this->was === null || $this->is === null ? 0 : $this->was->sourceStartTicks - $this->is->sourceStartTicks;
    }

    /** By how much its tail ends later in the source, ticks; below zero earlier. */
    public function tailTicks(): int
    {
        return $this->was === null || $this->is === null ? 0 : $this->is->sourceEndTicks() - $this->was->sourceEndTicks();
    }
}
