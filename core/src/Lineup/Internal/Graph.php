<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

/**
 * Clips tied to each other by known distances: a union-find in which every node knows its distance to its root.
 *
 * @internal
 */
final class Graph
{
    /** @var array<string, string> */
    private array $parent = [];

    /** @var array<string, int> ticks from the parent's start to the node's start */
    private array $distance = [];

    public function add(string $id): void
    {
        $this->parent[$id] ??= $id;
        $this->distance[$id] ??= 0;
    }

    /** @return array{string, int} root, and ticks from the root's start to the node's */
    public function find(string $id): array
    {
        $path = [];
        for ($at = $id; $this->parent[$at] !== $at; $at = $this->parent[$at]) {
            $path[] = $at;
        }
        $sum = 0;
        foreach (array_reverse($path) as $node) {
            $sum += $this->distance[$node];
            $this->parent[$node] = $at;
            $this->distance[$node] = $sum;
        }

        return [$at, $this->distance[$id]];
    }

    /**
     * Says that $b starts $ticks after $a.
     *
     * @return int|null null when this tied two groups; else how far the statement misses what was known, ticks
     */
    public function tie(string $a, string $b, int $ticks): ?int
    {
        [$rootA, $toA] = $this->find($a);
        [$rootB, $toB] = $this->find($b);
        if ($rootA === $rootB) {
            return $toB - $toA - $ticks;
        }
        $this->parent[$rootB] = $rootA;
        $this->distance[$rootB] = $toA + $ticks - $toB;

        return null;
    }

    public function isTied(string $a, string $b): bool
    {
        return $this->find($a)[0] === $this->find($b)[0];
    }
}
