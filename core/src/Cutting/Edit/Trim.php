<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Marker;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;

/**
 * Moves one edge of an item. With ripple all that starts at or after the item's end moves along, on every unlocked track; of
 * a head the item keeps its place then, and what follows moves the other way.
 */
final readonly class Trim implements Operation
{
    /** @param  int  $byTicks  of the edge, later is positive */
    public function __construct(
        public int $track,
        public int $index,
        public Edge $edge,
        public int $byTicks,
        public bool $isRipple = false,
    ) {}

    public function apply(Sequence $sequence): Sequence
    {
        $track = Rules::track($sequence, $this->track);
        $item = Rules::item($track, $this->index);
        Rules::wholeFrames($sequence, $this->byTicks);
        $isHead = $this->edge === Edge::Head;
        $duration = $item->durationTicks + ($isHead ? -$this->byTicks : $this->byTicks);
        Rules::lasts($duration);
        $sourceStart = $isHead ? self::moved($item, $this->byTicks) : $item->sourceStartTicks;
        Rules::inSource($item, $sourceStart, $duration);
        $trimmed = $item->with(
            sourceStart: $sourceStart,
            duration: $duration,
            recordStart: $isHead && !$this->isRipple ? self::start($item, $this->byTicks) : $item->recordStartTicks,
            markers: self::markers($item, $isHead ? $this->byTicks : 0, $duration),
        );

        return $this->isRipple
            ? $this->ripple($sequence, $item, $trimmed)
            : $sequence->with([$this->track => $this->inPlace($track, $trimmed)]);
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
    private function inPlace(Track $track, Item $trimmed): array
    {
        if (!$track->isFree($trimmed->recordStartTicks, $trimmed->recordEndTicks(), $this->index)) {
            throw Refused::because('Another item is there.');
        }
        $items = $track->items;
        $items[$this->index] = $trimmed;

        return $items;
    }

    private function ripple(Sequence $sequence, Item $item, Item $trimmed): Sequence
    {
        $end = $item->recordEndTicks();
        $by = $trimmed->recordEndTicks() - $end;
        $changed = [];
        foreach ($sequence->tracks as $index => $track) {
            if ($track->locked) {
                continue;
            }
            $items = $track->items;
            if ($index === $this->track) {
                $items[$this->index] = $trimmed;
            }
            $last = 0;
            $changed[$index] = Track::moved($items, $end, $by);
            foreach ($changed[$index] as $at => $one) {
                $was = $track->items[$at];
                if ($index !== $this->track && $was->recordStartTicks < $end && $end < $was->recordEndTicks()) {
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
