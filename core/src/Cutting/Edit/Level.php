<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\TrackKind;

/**
 * How loud an item of sound is, and how it comes in and goes out: gain in hundredths of a decibel, fades in ticks from its edges,
 * kept in its metadata as `gain_millibels`, `fade_in_ticks` and `fade_out_ticks`.
 */
final readonly class Level implements Operation
{
    public const MOST_MILLIBELS = 2400;

    public function __construct(
        public int $track,
        public int $index,
        public int $gainMillibels,
        public int $fadeInTicks,
        public int $fadeOutTicks,
    ) {}

    public function apply(Sequence $sequence): Sequence
    {
        $track = Rules::track($sequence, $this->track);
        $item = Rules::item($track, $this->index);
        if ($track->kind !== TrackKind::Sound) {
            throw Refused::because('Only sound has a level.');
        }
        if ($this->gainMillibels > self::MOST_MILLIBELS || $this->gainMillibels < -9600) {
            throw Refused::because('A gain lies between -96 dB and +24 dB.');
        }
        if ($this->fadeInTicks < 0 || $this->fadeOutTicks < 0 || $this->fadeInTicks + $this->fadeOutTicks > $item->durationTicks) {
            throw Refused::because('The fades are longer than the item.');
        }
        $metadata = array_diff_key($item->metadata, ['gain_millibels' => 1, ...Item::FADES]);
        $items = $track->items;
        $items[$this->index] = $item->with(
            metadata: $metadata +
                array_filter([
                    'gain_millibels' => $this->gainMillibels,
                    'fade_in_ticks' => $this->fadeInTicks,
                    'fade_out_ticks' => $this->fadeOutTicks,
                ]),
        );

        return $sequence->with([$this->track => $items]);
    }
}
