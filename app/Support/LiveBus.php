<?php

declare(strict_types=1);

namespace App\Support;

/** What carries the news of a production to its open pages, in one order that all of them see. */
interface LiveBus
{
    /** @param  array<string, mixed>  $facts */
    public function publish(int $productionId, Topic $topic, array $facts, ?string $origin): void;

    /** The number of the newest event; 0 before the first. */
    public function last(int $productionId): int;

    /**
     * What came after a number, in its order, a page at most.
     *
     * @return list<array{id: int, topic: string, facts: mixed, origin: string|null}>
     */
    public function since(int $productionId, int $after): array;
}
