<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;

/**
 * Opens every unlocked track at a place for as long as the longest of some items, and puts these there. Items that span the
 * place are split.
 */
final readonly class Insert implements Operation
{
    /** @param  non-empty-list<array{track: int, item: Item}>  $items  one for a track at most */
    public function __construct(public int $atTicks, public array $items) {}

    public function apply(Sequence $sequence): Sequence
    {
        Rules::place($sequence, $this->atTicks);
        $longest = 0;
        $put = [];
        foreach ($this->items as ['track' => $track, 'item' => $item]) {
            Rules::track($sequence, $track);
            Rules::wholeFrames($sequence, $item->durationTicks);
            if (isset($put[$track])) {
                throw Refused::because("Two items cannot stand at one place of track $track.");
            }
            $put[$track] = $item->at($this->atTicks);
            $longest = max($longest, $item->durationTicks);
        }
        $changed = [];
        foreach ($sequence->tracks as $index => $track) {
            if (!$track->locked) {
                $items = Track::moved(Split::items($track->items, $this->atTicks), $this->atTicks, $longest);
                $changed[$index] = isset($put[$index]) ? Track::placed($items, $put[$index]) : $items;
            }
        }

        return $sequence->with($changed);
    }
}
