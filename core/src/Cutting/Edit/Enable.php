<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Sequence;

/** Shows an item, or leaves it out while it keeps its place. */
final readonly class Enable implements Operation
{
    public function __construct(public int $track, public int $index, public bool $isOn) {}

    public function apply(Sequence $sequence): Sequence
    {
        $track = Rules::track($sequence, $this->track);
        $items = $track->items;
        $items[$this->index] = Rules::item($track, $this->index)->with(enabled: $this->isOn);

        return $sequence->with([$this->track => $items]);
    }
}
