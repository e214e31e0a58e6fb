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

    /** @throws Refused for a name that says nothing, or too much */
    public static function name(string $name): string
    {
        $name = trim($name);
        if ($name === '' || mb_strlen($name) > 60) {
            throw Refused::because('A track has a name of at most 60 letters.');
        }

        return $name;
    }

    /**
     * Items of a range on unlocked tracks, each in its place as something turns it.
     *
     * @param  callable(Item): (Item|null)  $turn  null leaves it as it is
     *
     * @throws Refused where none is turned
     */
    public static function each(Sequence $sequence, int $fromTicks, int $toTicks, callable $turn, string $none): Sequence
    {
        self::range($sequence, $fromTicks, $toTicks);
        $changed = [];
        foreach ($sequence->tracks as $index => $track) {
            foreach ($track->locked ? [] : $track->items as $at => $item) {
                $turned = $item->isOver($fromTicks, $toTicks) ? $turn($item) : null;
                if ($turned !== null) {
                    $changed[$index] ??= $track->items;
                    $changed[$index][$at] = $turned;
                }
            }
        }

        return $changed === [] ? throw Refused::because($none) : $sequence->with($changed);
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
