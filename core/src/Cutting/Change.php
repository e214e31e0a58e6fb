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

    /**
     * By how much it begins earlier and ends later in its source; below zero later and earlier. Lists round sound to frames: an edge that
     * is less than a frame away stands where it did, and the other one has moved by what the length says.
     *
     * @param  int  $frame  ticks
     * @return array{int, int} ticks
     */
    public function edgesTicks(int $frame): array
    {
        if ($this->was === null || $this->is === null) {
            return [0, 0];
        }
        $head = $this->was->sourceStartTicks - $this->is->sourceStartTicks;
        $tail = $this->is->sourceEndTicks() - $this->was->sourceEndTicks();
        $grown = $head + $tail;

        return match (true) {
            // Other material of the same length.
            $grown === 0 => [$head, $tail],
            abs($tail) < $frame => [$grown, 0],
            abs($head) < $frame => [0, $grown],
            default => [$head, $tail],
        };
    }
}
