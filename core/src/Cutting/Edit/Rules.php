<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;

/**
 * What operations ask of a sequence before they change it.
 *
 * @internal
 */
final class Rules
{
    /** @throws Refused if there is no such track, or it is locked */
    public static function track(Sequence $sequence, int $index): Track
    {
        $track = $sequence->tracks[$index] ?? throw Refused::because("There is no track $index.");

        return $track->locked ? throw Refused::because("Track $index is locked.") : $track;
    }

    /** @throws Refused */
    public static function item(Track $track, int $index): Item
    {
        return $track->items[$index] ?? throw Refused::because("There is no item $index on that track.");
    }

    /** @throws Refused for a place before the sequence or between its frames */
    public static function place(Sequence $sequence, int $ticks): void
    {
        if ($ticks < 0) {
            throw Refused::because('That place lies before the sequence.');
        }
        self::wholeFrames($sequence, $ticks);
    }

    /** @throws Refused for an amount that would leave an edge between two frames */
    public static function wholeFrames(Sequence $sequence, int $ticks): void
    {
        if ($ticks % $sequence->rate->ticksPerFrame() !== 0) {
            throw Refused::because('That lies between two frames.');
        }
    }

    /** @throws Refused */
    public static function range(Sequence $sequence, int $fromTicks, int $toTicks): void
    {
        if ($fromTicks >= $toTicks) {
            throw Refused::because('The range lasts no time.');
        }
        self::place($sequence, $fromTicks);
        self::place($sequence, $toTicks);
    }

    /** @throws Refused if what would be shown lies outside the source */
    public static function inSource(Item $item, int $sourceStartTicks, int $durationTicks): void
    {
        if (!$item->speed->fits($sourceStartTicks, $durationTicks, $item->source->durationTicks)) {
            throw Refused::because('The source has no more there.');
        }
    }

    /** @throws Refused if nothing would be left */
    public static function lasts(int $durationTicks): void
    {
        if ($durationTicks <= 0) {
            throw Refused::because('Nothing would be left of the item.');
        }
    }
}
