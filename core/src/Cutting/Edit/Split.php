<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;

/** Makes two items of one; they play on as before. */
final readonly class Split implements Operation
{
    public function __construct(public int $track, public int $atTicks) {}

    public function apply(Sequence $sequence): Sequence
    {
        $track = Rules::track($sequence, $this->track);
        Rules::place($sequence, $this->atTicks);
        $index = $track->indexAt($this->atTicks);
        if ($index === null || $track->items[$index]->recordStartTicks === $this->atTicks) {
            throw Refused::because('No item plays across that place.');
        }

        return $sequence->with([$this->track => self::items($track->items, $this->atTicks)]);
    }

    /**
     * @param  list<Item>  $items
     * @return list<Item> with the one that spans a place in two
     */
    public static function items(array $items, int $atTicks): array
    {
        $split = [];
        foreach ($items as $item) {
            if ($item->recordStartTicks < $atTicks && $atTicks < $item->recordEndTicks()) {
                array_push($split, $item->between($item->recordStartTicks, $atTicks), $item->between($atTicks, $item->recordEndTicks()));
            } else {
                $split[] = $item;
            }
        }

        return $split;
    }
}
