<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;

/** Puts an item elsewhere, on its own track or another of its kind, where nothing is; its old place stays empty. */
final readonly class Move implements Operation
{
    public function __construct(public int $track, public int $index, public int $toTrack, public int $atTicks) {}

    public function apply(Sequence $sequence): Sequence
    {
        $from = Rules::track($sequence, $this->track);
        $to = Rules::track($sequence, $this->toTrack);
        $item = Rules::item($from, $this->index);
        Rules::place($sequence, $this->atTicks);
        if ($from->kind !== $to->kind) {
            throw Refused::because('Picture and sound stand on tracks of their own kind.');
        }
        $end = $this->atTicks + $item->durationTicks;
        if (!$to->isFree($this->atTicks, $end, $this->track === $this->toTrack ? $this->index : null)) {
            throw Refused::because('Another item is there.');
        }
        $left = $from->items;
        array_splice($left, $this->index, 1);
        $changed = [$this->track => $left];
        $changed[$this->toTrack] = Track::placed($changed[$this->toTrack] ?? $to->items, $item->at($this->atTicks));

        return $sequence->with($changed);
    }
}
