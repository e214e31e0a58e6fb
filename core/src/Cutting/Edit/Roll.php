<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Marker;
use Cartella\Core\Cutting\Sequence;

/** Moves the cut between an item and the next; neither moves otherwise. */
final readonly class Roll implements Operation
{
    /**
     * @param  int  $index  of the first of the two
     * @param  int  $byTicks  of the cut, later is positive
     */
    public function __construct(public int $track, public int $index, public int $byTicks) {}

    public function apply(Sequence $sequence): Sequence
    {
        $track = Rules::track($sequence, $this->track);
        $first = Rules::item($track, $this->index);
        $second = Rules::item($track, $this->index + 1);
        Rules::wholeFrames($sequence, $this->byTicks);
        if ($first->recordEndTicks() !== $second->recordStartTicks) {
            throw Refused::because('There is no cut between the two, but a gap.');
        }
        $start =
            $second->sourceStartTicks +
            ($this->byTicks < 0 ? -$second->speed->ofSource(-$this->byTicks) : $second->speed->ofSource($this->byTicks));
        Rules::lasts($first->durationTicks + $this->byTicks);
        Rules::lasts($second->durationTicks - $this->byTicks);
        Rules::inSource($first, $first->sourceStartTicks, $first->durationTicks + $this->byTicks);
        Rules::inSource($second, $start, $second->durationTicks - $this->byTicks);
        $items = $track->items;
        $length = $first->durationTicks + $this->byTicks;
        $items[$this->index] = $first->with(
            duration: $length,
            markers: array_values(array_filter($first->markers, static fn(Marker $marker): bool => $marker->atTicks < $length)),
        );
        $items[$this->index + 1] = $second->with(
            sourceStart: $start,
            duration: $second->durationTicks - $this->byTicks,
            recordStart: $second->recordStartTicks + $this->byTicks,
            markers: array_values(
                array_filter(
                    array_map(fn(Marker $marker): Marker => $marker->later($this->byTicks), $second->markers),
                    static fn(Marker $marker): bool => $marker->atTicks >= 0,
                ),
            ),
        );

        return $sequence->with([$this->track => $items]);
    }
}
