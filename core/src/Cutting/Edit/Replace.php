<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Source;

/** Shows another source at the same place for the same time. */
final readonly class Replace implements Operation
{
    public function __construct(public int $track, public int $index, public Source $source, public int $sourceStartTicks) {}

    public function apply(Sequence $sequence): Sequence
    {
        $track = Rules::track($sequence, $this->track);
        $item = Rules::item($track, $this->index);
        if (!$item->speed->fits($this->sourceStartTicks, $item->durationTicks, $this->source->durationTicks)) {
            throw Refused::because('The new source is too short there.');
        }
        $items = $track->items;
        $items[$this->index] = $item->with(sourceStart: $this->sourceStartTicks, source: $this->source);

        return $sequence->with([$this->track => $items]);
    }
}
