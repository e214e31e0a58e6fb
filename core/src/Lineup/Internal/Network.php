<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

/**
 * Clips and what is known of pairs of them. Links that join two groups of clips carry their places; the others close
 * cycles and are there to be compared with those.
 *
 * @internal
 */
final class Network
{
    /** @var array<string, string> a representative of each clip's group */
    private array $parent = [];

    /** @var array<string, list<Link>> joining links by clip */
    private array $links = [];

    /** @var list<Link> */
    public array $closing = [];

    public function add(string $id): void
    {
        $this->parent[$id] ??= $id;
        $this->links[$id] ??= [];
    }

    /** @return bool whether it joined two groups; else the link closes a cycle */
    public function tie(Link $link): bool
    {
        $a = $this->groupOf($link->a);
        $b = $this->groupOf($link->b);
        if ($a === $b) {
            $this->closing[] = $link;

            return false;
        }
        $this->parent[$b] = $a;
        $this->links[$link->a][] = $link;
        $this->links[$link->b][] = $link;

        return true;
    }

    public function isTied(string $a, string $b): bool
    {
        return $this->groupOf($a) === $this->groupOf($b);
    }

    public function isAlone(string $id): bool
    {
        return $this->links[$id] === [];
    }

    /** @return Link|null the joining link that is believed most */
    public function strongest(string $id): ?Link
    {
        $links = $this->links[$id];
        usort($links, static fn(Link $x, Link $y): int => [$y->sure, $y->confidence] <=> [$x->sure, $x->confidence]);

        return $links[0] ?? null;
    }

    /**
     * Every clip of a group on the clock of one of them, which lies at 0. A clip whose clock is fast counts more samples
     * than time goes by, so what is measured on it is made shorter before it is added.
     *
     * @return array<string, array{ticks: int, ppm: float, link: Link|null}> nearer clips first; `link` leads to the root
     */
    public function from(string $root): array
    {
        $places = [$root => ['ticks' => 0, 'ppm' => 0.0, 'link' => null]];
        $queue = [$root];
        for ($at = 0; $at < count($queue); $at++) {
            $id = $queue[$at];
            foreach ($this->links[$id] as $link) {
                $other = $link->other($id);
                if (isset($places[$other])) {
                    continue;
                }
                $isForward = $id === $link->a;
                $ppm = $places[$id]['ppm'] + ($isForward ? 1 : -1) * ($link->ppm ?? 0.0);
                // The distance is told on a's clock.
                $distance = (int) round($link->offsetTicks * (1 - ($isForward ? $places[$id]['ppm'] : $ppm) * 1e-6));
                $places[$other] = [
                    'ticks' => $places[$id]['ticks'] + ($isForward ? $distance : -$distance),
                    'ppm' => $ppm,
                    'link' => $link,
                ];
                $queue[] = $other;
            }
        }

        return $places;
    }

    /**
     * How far a statement misses two places that are known, where it was measured; ticks.
     *
     * @param  array<string, array{ticks: int, ppm: float, link: Link|null}>  $places
     */
    public static function miss(Link $link, array $places): int
    {
        $a = $places[$link->a];
        $b = $places[$link->b];
        $onA = $link->offsetTicks + $link->middleTicks * (1 - ($link->ppm ?? 0.0) * 1e-6);

        return (int) round($b['ticks'] + $link->middleTicks * (1 - $b['ppm'] * 1e-6) - $a['ticks'] - $onA * (1 - $a['ppm'] * 1e-6));
    }

    /**
     * The joining links between two clips of one group.
     *
     * @param  array<string, array{ticks: int, ppm: float, link: Link|null}>  $places
     * @return array<string, Link> by the clip that each of them places
     */
    public static function way(string $a, string $b, array $places): array
    {
        $toRoot = static function (string $id) use ($places): array {
            $way = [];
            while (($link = $places[$id]['link']) !== null) {
                $way[$id] = $link;
                $id = $link->other($id);
            }

            return $way;
        };
        $fromA = $toRoot($a);
        $fromB = $toRoot($b);

        return array_diff_key($fromA, $fromB) + array_diff_key($fromB, $fromA);
    }

    private function groupOf(string $id): string
    {
        $root = $id;
        while ($this->parent[$root] !== $root) {
            $root = $this->parent[$root];
        }
        while ($this->parent[$id] !== $root) {
            [$id, $this->parent[$id]] = [$this->parent[$id], $root];
        }

        return $root;
    }
}
