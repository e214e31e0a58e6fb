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
    /** The newest of so many are offered. */
    private const OFFERED = 100;

    public function __construct(private readonly SequenceStore $store, private readonly ExchangeSequence $exchange) {}

    /**
     * @return Collection<int, StoredSequence> names of the cuts with which one can be compared; one of its name first, then those that show
     *     most of the same clips and little else, the newest of them first
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
            ->get(['id', 'ulid', 'name', 'kind']);
        $uses = DB::table('sequence_uses')
            ->whereIn('sequence_id', [...$all->modelKeys(), $stored->id])
            ->get(['sequence_id', 'clip_id'])
            ->groupBy('sequence_id')
            ->map(static fn(Collection $own): array => array_flip($own->pluck('clip_id')->all()));
        $mine = $uses[$stored->id] ?? [];
        $alike = $all->mapWithKeys(static function (StoredSequence $one) use ($uses, $mine): array {
            $theirs = $uses[$one->id] ?? [];

            return [$one->id => (2 * count(array_intersect_key($mine, $theirs))) / max(1, count($mine) + count($theirs))];
        });

        return $all
            ->sortByDesc(static fn(StoredSequence $one): array => [$one->name === $stored->name, $alike[$one->id], $one->id])
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
