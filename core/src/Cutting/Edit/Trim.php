<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Marker;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;

/**
 * Moves one edge of an item, and of those on other tracks that go along with it. With ripple all that starts at or after the item's end
 * moves along once, on every unlocked track; of a head the item keeps its place then, and what follows moves the other way.
 */
final readonly class Trim implements Operation
{
    /**
     * @param  int  $byTicks  of the edge, later is positive
     * @param  list<array{track: int, index: int}>  $with  items that have the edge at the same place, one on a track; for a head with
     *     ripple both edges
     */
    public function __construct(
        public int $track,
        public int $index,
        public Edge $edge,
        public int $byTicks,
        public bool $isRipple = false,
        public array $with = [],
    ) {}

    public function apply(Sequence $sequence): Sequence
    {
        $first = Rules::item(Rules::track($sequence, $this->track), $this->index);
        $trimmed = [];
        foreach ([['track' => $this->track, 'index' => $this->index], ...$this->with] as ['track' => $track, 'index' => $index]) {
            $item = Rules::item(Rules::track($sequence, $track), $index);
            if (isset($trimmed[$track]) || !$this->isBeside($first, $item)) {
                throw Refused::because('They do not begin and end at the same place.');
            }
            $trimmed[$track] = [$index, $this->trimmed($sequence, $item)];
        }
        if ($this->isRipple) {
            return $this->ripple($sequence, $first->recordEndTicks(), $trimmed);
        }

        $changed = [];
        foreach ($trimmed as $track => [$index, $item]) {
            $changed[$track] = self::inPlace($sequence->tracks[$track], $index, $item);
        }

        return $sequence->with($changed);
    }

    private function isBeside(Item $first, Item $item): bool
    {
        $begins = $first->recordStartTicks === $item->recordStartTicks;
        $ends = $first->recordEndTicks() === $item->recordEndTicks();

        return $this->edge === Edge::Tail ? $ends : $begins && ($ends || !$this->isRipple);
    }

    private function trimmed(Sequence $sequence, Item $item): Item
    {
        Rules::wholeFrames($sequence, $this->byTicks);
        $isHead = $this->edge === Edge::Head;
        $duration = $item->durationTicks + ($isHead ? -$this->byTicks : $this->byTicks);
        Rules::lasts($duration);
        $sourceStart = $isHead ? self::moved($item, $this->byTicks) : $item->sourceStartTicks;
        Rules::inSource($item, $sourceStart, $duration);

        return $item->with(
            sourceStart: $sourceStart,
            duration: $duration,
            recordStart: $isHead && !$this->isRipple ? self::start($item, $this->byTicks) : $item->recordStartTicks,
            markers: self::markers($item, $isHead ? $this->byTicks : 0, $duration),
        );
    }

    /** @throws Refused */
    private static function start(Item $item, int $byTicks): int
    {
        $start = $item->recordStartTicks + $byTicks;

        return $start < 0 ? throw Refused::because('The item would begin before the sequence.') : $start;
    }

    private static function moved(Item $item, int $byTicks): int
    {
        return $item->sourceStartTicks + ($byTicks < 0 ? -$item->speed->ofSource(-$byTicks) : $item->speed->ofSource($byTicks));
    }

    /** @return list<Marker> */
    private static function markers(Item $item, int $cutTicks, int $durationTicks): array
    {
        $markers = array_map(static fn(Marker $marker): Marker => $marker->later($cutTicks), $item->markers);

        return array_values(
            array_filter($markers, static fn(Marker $marker): bool => $marker->atTicks >= 0 && $marker->atTicks < $durationTicks),
        );
    }

    /** @return list<Item> */
    private static function inPlace(Track $track, int $index, Item $trimmed): array
    {
        if (!$track->isFree($trimmed->recordStartTicks, $trimmed->recordEndTicks(), $index)) {
            throw Refused::because('Another item is there.');
        }
        $items = $track->items;
        $items[$index] = $trimmed;

        return $items;
    }

    /** @param  non-empty-array<int, array{int, Item}>  $trimmed  by track: which item, and what it becomes */
    private function ripple(Sequence $sequence, int $end, array $trimmed): Sequence
    {
        $by = $this->edge === Edge::Head ? -$this->byTicks : $this->byTicks;
        $changed = [];
        foreach ($sequence->tracks as $index => $track) {
            if ($track->locked) {
                continue;
            }
            $items = $track->items;
            if (isset($trimmed[$index])) {
                $items[$trimmed[$index][0]] = $trimmed[$index][1];
            }
            $last = 0;
            $changed[$index] = Track::moved($items, $end, $by);
            foreach ($changed[$index] as $at => $one) {
                $was = $track->items[$at];
                if (!isset($trimmed[$index]) && $was->recordStartTicks < $end && $end < $was->recordEndTicks()) {
                    throw Refused::because("On track $index an item plays across that place.");
                }
                if ($one->recordStartTicks < $last) {
                    throw Refused::because("On track $index there is no room to close up.");
                }
                $last = $one->recordEndTicks();
            }
        }

        return $sequence->with($changed);
    }
}
