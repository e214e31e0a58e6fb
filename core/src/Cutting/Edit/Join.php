<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Marker;
use Cartella\Core\Cutting\Sequence;

/** Makes one item of two that play on from each other, and of nothing else. */
final readonly class Join implements Operation
{
    /** @param  int  $index  of the first of the two */
    public function __construct(public int $track, public int $index) {}

    public function apply(Sequence $sequence): Sequence
    {
        $track = Rules::track($sequence, $this->track);
        $first = Rules::item($track, $this->index);
        $second = Rules::item($track, $this->index + 1);
        $playsOn =
            $second->recordStartTicks === $first->recordEndTicks() &&
            $second->sourceStartTicks === $first->sourceEndTicks() &&
            $second->transition === null &&
            $first->ending === null &&
            $first->enabled === $second->enabled &&
            $first->name === $second->name &&
            // Values, not objects: sources, looks, speeds and angles are compared by what they hold.
            [$first->source, array_diff_key($first->metadata, Item::FADES), $first->look, $first->speed, $first->angles] == [
                $second->source,
                array_diff_key($second->metadata, Item::FADES),
                $second->look,
                $second->speed,
                $second->angles,
            ] &&
            !isset($first->metadata['fade_out_ticks']) &&
            !isset($second->metadata['fade_in_ticks']);
        if (!$playsOn) {
            throw Refused::because('The second does not play on from the first.');
        }
        $later = static fn(Marker $marker): Marker => $marker->later(-$first->durationTicks);
        $one = $first->with(
            duration: $first->durationTicks + $second->durationTicks,
            markers: [...$first->markers, ...array_map($later, $second->markers)],
            ending: $second->ending,
            metadata: $first->metadata + array_intersect_key($second->metadata, Item::FADES),
        );
        $items = $track->items;
        array_splice($items, $this->index, 2, [$one]);

        return $sequence->with([$this->track => $items]);
    }
}
