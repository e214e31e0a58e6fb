<?php

declare(strict_types=1);

namespace App\Domain\Handoff\Back;

use App\Domain\Handoff\ExchangeSequence;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SequenceStore;
use App\Domain\Sequences\ToldChanges;
use App\Models\StoredSequence;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** What became of a cut that was sent, when it comes back: each difference in words and with its place. */
final class CompareCuts
{
    public function __construct(private readonly SequenceStore $store, private readonly ExchangeSequence $exchange) {}

    /** The newest of so many are offered. */
    private const OFFERED = 100;

    /**
     * @return Collection<int, StoredSequence> the cuts with which one can be compared; one of its name first, then those that show most of
     *     the same clips and little else, the newest of them first
     */
    public static function with(StoredSequence $stored): Collection
    {
        $all = StoredSequence::query()
            ->where('production_id', $stored->production_id)
            ->whereKeyNot($stored->id)
            ->whereNull('removed_at')
            ->orderByRaw('name = ? DESC', [$stored->name])
            ->orderByDesc('id')
            ->limit(self::OFFERED)
            ->get();
        $uses = DB::table('sequence_uses')
            ->whereIn('sequence_id', [...$all->modelKeys(), $stored->id])
            ->distinct()
            ->get(['sequence_id', 'clip_id'])
            ->groupBy('sequence_id')
            ->map(static fn(Collection $own): array => $own->pluck('clip_id')->all());
        $mine = $uses[$stored->id] ?? [];
        $alike = static fn(StoredSequence $one): float => (2 * count(array_intersect($mine, $uses[$one->id] ?? []))) /
            max(1, count($mine) + count($uses[$one->id] ?? []));

        return $all
            ->sortBy([
                static fn(StoredSequence $x, StoredSequence $y): int => ($y->name === $stored->name) <=> ($x->name === $stored->name),
                static fn(StoredSequence $x, StoredSequence $y): int => $alike($y) <=> $alike($x),
                static fn(StoredSequence $x, StoredSequence $y): int => $y->id <=> $x->id,
            ])
            ->values();
    }

    /** @return array{same: int, changes: list<array<string, mixed>>} */
    public function of(StoredSequence $before, StoredSequence $after): array
    {
        // A reel is compared as it was sent: with the recordings under it.
        $was = $this->exchange->of(Playlist::of($before, $this->store->read($before)), static fn(): ?string => null);
        $is = $this->store->read($after);

        return ToldChanges::of($was, $is);
    }
}
