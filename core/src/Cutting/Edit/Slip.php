<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\TrackKind;

/** Shows other material of the source at the same place. */
final readonly class Slip implements Operation
{
    /** @param  int  $byTicks  of the material, later is positive */
    public function __construct(public int $track, public int $index, public int $byTicks) {}

    public function apply(Sequence $sequence): Sequence
    {
        $track = Rules::track($sequence, $this->track);
        $item = Rules::item($track, $this->index);
        if ($track->kind === TrackKind::Picture) {
            Rules::wholeFrames($sequence, $this->byTicks);
        }
        Rules::inSource($item, $item->sourceStartTicks + $this->byTicks, $item->durationTicks);
        $items = $track->items;
        $items[$this->index] = $item->with(sourceStart: $item->sourceStartTicks + $this->byTicks);

        return $sequence->with([$this->track => $items]);
    }
}
