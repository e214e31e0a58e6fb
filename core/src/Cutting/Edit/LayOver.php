<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;

/** Puts an item in the place of what is there. */
final readonly class LayOver implements Operation
{
    public function __construct(public int $track, public int $atTicks, public Item $item) {}

    public function apply(Sequence $sequence): Sequence
    {
        $track = Rules::track($sequence, $this->track);
        Rules::place($sequence, $this->atTicks);
        Rules::wholeFrames($sequence, $this->item->durationTicks);
        $item = $this->item->at($this->atTicks);

        return $sequence->with([$this->track => Track::placed($track->cleared($this->atTicks, $item->recordEndTicks()), $item)]);
    }
}
