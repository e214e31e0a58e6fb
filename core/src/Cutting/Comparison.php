<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

/**
 * What became of a cut: items of one and the other that read the same stretch of the same source are one, and what differs
 * about them is told; the rest is new or gone.
 *
 * Items that only came earlier or later because something before them was taken out or put in have not moved; one has moved when
 * it stands in another order or on another track. Less than a frame is nothing: lists round sound to frames.
 */
final class Comparison
{
    /** Of so many that share a source with it, an item is held against those that share the most. */
    private const CLOSEST = 20;

    /** @var list<Change> */
    public readonly array $changes;

    /** Items that are as they were, wherever they came to stand. */
    public readonly int $same;

    public function __construct(Sequence $before, Sequence $after)
    {
        $changes = [];
        $same = 0;
        foreach ([TrackKind::Picture, TrackKind::Sound] as $kind) {
            [$some, $kept] = self::of(self::items($before, $kind), self::items($after, $kind), $after->rate->ticksPerFrame());
            array_push($changes, ...$some);
            $same += $kept;
        }
        usort($changes, static fn(Change $x, Change $y): int => $x->atTicks() <=> $y->atTicks());
        $this->changes = $changes;
        $this->same = $same;
    }

    /** @return list<array{int, Item}> with their track, by place */
    private static function items(Sequence $sequence, TrackKind $kind): array
    {
        $items = [];
        foreach ($sequence->tracks as $number => $track) {
            if ($track->kind === $kind) {
                foreach ($track->items as $item) {
                    $items[] = [$number, $item];
                }
            }
        }
        usort($items, static fn(array $x, array $y): int => [$x[1]->recordStartTicks, $x[0]] <=> [$y[1]->recordStartTicks, $y[0]]);

        return $items;
    }

    /**
     * @param  list<array{int, Item}>  $before
     * @param  list<array{int, Item}>  $after
     * @return array{list<Change>, int}
     */
    private static function of(array $before, array $after, int $frame): array
    {
        $pairs = self::pairs($before, $after);
        $inOrder = self::longestRise($pairs);
        $changes = [];
        $same = 0;
        foreach ($after as $new => [$track, $item]) {
            $old = $pairs[$new] ?? null;
            if ($old === null) {
                $changes[] = new Change(ChangeKind::New, null, $item);

                continue;
            }
            [$wasTrack, $was] = $before[$old];
            $head = abs($was->sourceStartTicks - $item->sourceStartTicks);
            $tail = abs($item->sourceEndTicks() - $was->sourceEndTicks());
            $grown = $item->durationTicks - $was->durationTicks;
            $isOther = !isset($inOrder[$new]) || self::rank($wasTrack, $before) !== self::rank($track, $after);
            if ($isOther) {
                $changes[] = new Change(ChangeKind::Moved, $was, $item);
            }
            if (abs($grown) >= $frame || (max($head, $tail) >= $frame && $item->speed == $was->speed)) {
                $changes[] = new Change(
                    match (true) {
                        $grown >= $frame => ChangeKind::Longer,
                        $grown <= -$frame => ChangeKind::Shorter,
                        default => ChangeKind::Slipped,
                    },
                    $was,
                    $item,
                );
            } elseif ($item->speed != $was->speed) {
                $changes[] = new Change(ChangeKind::Speed, $was, $item);
            } elseif (!$isOther) {
                $same++;
            }
        }
        foreach (array_diff(array_keys($before), array_values($pairs)) as $old) {
            $changes[] = new Change(ChangeKind::Gone, $before[$old][1], null);
        }

        return [$changes, $same];
    }

    /**
     * The first picture track stays the first, whatever its number.
     *
     * @param  list<array{int, Item}>  $all
     */
    private static function rank(int $track, array $all): int
    {
        $tracks = array_unique(array_column($all, 0));
        sort($tracks);

        return (int) array_search($track, $tracks, true);
    }

    /**
     * @param  list<array{int, Item}>  $before
     * @param  list<array{int, Item}>  $after
     * @return array<int, int> by the new one, the old one that it was
     */
    private static function pairs(array $before, array $after): array
    {
        $pairs = $taken = $alike = [];
        foreach ($before as $old => [, $item]) {
            $alike[self::stretch($item)][] = $old;
        }
        // What reads the same stretch is the same, one after the other; a source that is used a thousand times costs no more.
        foreach ($after as $new => [, $item]) {
            $old = isset($alike[self::stretch($item)]) ? array_shift($alike[self::stretch($item)]) : null;
            if ($old !== null) {
                $pairs[$new] = $old;
                $taken[$old] = true;
            }
        }
        foreach (self::wishes($before, $after, $pairs, $taken) as [, , , $new, $old]) {
            if (!isset($pairs[$new]) && !isset($taken[$old])) {
                $pairs[$new] = $old;
                $taken[$old] = true;
            }
        }
        ksort($pairs);

        return $pairs;
    }

    private static function stretch(Item $item): string
    {
        return $item->source->id . ' ' . self::low($item) . ' ' . self::high($item);
    }

    /**
     * Those left over that share something of a source: what shares the most first, of those alike the nearer one.
     *
     * @param  list<array{int, Item}>  $before
     * @param  list<array{int, Item}>  $after
     * @param  array<int, int>  $pairs
     * @param  array<int, true>  $taken
     * @return list<array{int, int, int, int, int}>
     */
    private static function wishes(array $before, array $after, array $pairs, array $taken): array
    {
        $bySource = [];
        foreach (array_diff_key($before, $taken) as $old => [, $item]) {
            $bySource[$item->source->id][] = $old;
        }
        $wishes = [];
        foreach (array_diff_key($after, $pairs) as $new => [, $item]) {
            $own = [];
            foreach ($bySource[$item->source->id] ?? [] as $old) {
                $was = $before[$old][1];
                $shared = min(self::high($item), self::high($was)) - max(self::low($item), self::low($was));
                if ($shared > 0) {
                    $own[] = [$shared, -abs($item->recordStartTicks - $was->recordStartTicks), -$new, $new, $old];
                }
            }
            rsort($own);
            array_push($wishes, ...array_slice($own, 0, self::CLOSEST));
        }
        rsort($wishes);

        return $wishes;
    }

    private static function low(Item $item): int
    {
        return min($item->sourceStartTicks, $item->sourceEndTicks());
    }

    /** A frame that stands reads a moment at least. */
    private static function high(Item $item): int
    {
        return max($item->sourceStartTicks, $item->sourceEndTicks(), self::low($item) + 1);
    }

    /**
     * Those of the new ones that follow each other as they did before, as many as can be.
     *
     * @param  array<int, int>  $pairs
     * @return array<int, true> by the new one
     */
    private static function longestRise(array $pairs): array
    {
        $tops = $from = [];
        $keys = array_keys($pairs);
        foreach ($keys as $new) {
            $low = 0;
            $high = count($tops);
            while ($low < $high) {
                $middle = intdiv($low + $high, 2);
                if ($pairs[$tops[$middle]] < $pairs[$new]) {
                    $low = $middle + 1;
                } else {
                    $high = $middle;
                }
            }
            $from[$new] = $low > 0 ? $tops[$low - 1] : null;
            $tops[$low] = $new;
        }
        $rise = [];
        for ($at = $tops === [] ? null : $tops[count($tops) - 1]; $at !== null; $at = $from[$at]) {
            $rise[$at] = true;
        }

        return $rise;
    }
}
