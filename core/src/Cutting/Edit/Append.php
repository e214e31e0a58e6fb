<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;

/** Puts an item behind the last one of a track. */
final readonly class Append implements Operation
{
    public function __construct(public int $track, public Item $item) {}

    public function apply(Sequence $sequence): Sequence
    {
        $track = Rules::track($sequence, $this->track);
        Rules::wholeFrames($sequence, $this->item->durationTicks);

        return $sequence->with([$this->track => [...$track->items, $this->item->at($track->endTicks())]]);
    }
}
