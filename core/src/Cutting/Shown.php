<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

/** What of a cut is seen: of several tracks of picture the later one covers those before it, as far as something plays on it. */
final class Shown
{
    /**
     * @param  (callable(Item): bool)|null  $plays  whether an item shows anything; null for all that are on
     * @return list<Item> in record order without overlap: items, or the parts of them that are seen
     */
    public static function of(Sequence $sequence, ?callable $plays = null): array
    {
        $seen = [];
        foreach ($sequence->tracks as $track) {
            if ($track->kind !== TrackKind::Picture || !$track->enabled) {
                continue;
            }
            $above = array_values(
                array_filter($track->items, static fn(Item $item): bool => $item->enabled && ($plays === null || $plays($item))),
            );
            $seen = $seen === [] ? $above : self::covered($seen, $above);
        }

        return $seen;
    }

    /**
     * @param  list<Item>  $below  in order
     * @param  list<Item>  $above  in order
     * @return list<Item>
     */
    private static function covered(array $below, array $above): array
    {
        $all = $above;
        $next = 0;
        foreach ($below as $item) {
            while ($next < count($above) && $above[$next]->recordEndTicks() <= $item->recordStartTicks) {
                $next++;
            }
            $from = $item->recordStartTicks;
            for ($at = $next; $at < count($above) && $above[$at]->recordStartTicks < $item->recordEndTicks(); $at++) {
                if ($above[$at]->recordStartTicks > $from) {
                    $all[] = $item->between($from, $above[$at]->recordStartTicks);
                }
                $from = max($from, $above[$at]->recordEndTicks());
            }
            if ($from < $item->recordEndTicks()) {
                $all[] = $from === $item->recordStartTicks ? $item : $item->between($from, $item->recordEndTicks());
            }
        }
        usort($all, static fn(Item $x, Item $y): int => $x->recordStartTicks <=> $y->recordStartTicks);

        return $all;
    }
}
