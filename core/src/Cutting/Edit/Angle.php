<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\TrackKind;

/**
 * Shows another angle of the same moment in a range, in the picture, the sound or both. Only items that know their angles are
 * turned; where the new angle was not rolling nothing is.
 */
final readonly class Angle implements Operation
{
    /** @param  TrackKind|null  $takes  null for both */
    public function __construct(public int $fromTicks, public int $toTicks, public ?TrackKind $takes, public string $angle) {}

    public function apply(Sequence $sequence): Sequence
    {
        Rules::range($sequence, $this->fromTicks, $this->toTicks);
        $changed = [];
        foreach ($sequence->tracks as $index => $track) {
            if ($track->locked || ($this->takes !== null && $track->kind !== $this->takes)) {
                continue;
            }
            $items = [];
            $isTurned = false;
            foreach ($track->items as $item) {
                if (!$this->isMeant($item)) {
                    $items[] = $item;

                    continue;
                }
                $isTurned = true;
                array_push($items, ...$this->turned($item));
            }
            if ($isTurned) {
                $changed[$index] = $items;
            }
        }

        return $changed === [] ? throw Refused::because('Nothing there has another angle to show.') : $sequence->with($changed);
    }

    private function isMeant(Item $item): bool
    {
        return $item->isOver($this->fromTicks, $this->toTicks) &&
            $item->angles !== null &&
            $item->angles->current !== $this->angle &&
            isset($item->angles->list[$this->angle]);
    }

    /** @return list<Item> what stays before the range, what is turned, what stays behind it */
    private function turned(Item $item): array
    {
        $from = max($item->recordStartTicks, $this->fromTicks);
        $to = min($item->recordEndTicks(), $this->toTicks);
        $part = $item->between($from, $to);
        $angles = $part->angles ?? throw new \LogicException('An item loses no angles.');
        $source = $angles->list[$this->angle]['source'];
        $start = (int) $angles->placeOf($this->angle, $angles->moment($part->sourceStartTicks));
        if (!$part->speed->fits($start, $part->durationTicks, $source->durationTicks)) {
            throw Refused::because("$this->angle was not rolling there.");
        }
        $turned = $part->with(sourceStart: $start, source: $source, angles: $angles->turned($this->angle));

        return [
            ...$item->recordStartTicks < $from ? [$item->between($item->recordStartTicks, $from)] : [],
            $turned,
            ...$to < $item->recordEndTicks() ? [$item->between($to, $item->recordEndTicks())] : [],
        ];
    }
}
