<?php

declare(strict_types=1);

namespace App\Domain\Handoff\Back;

use App\Domain\Handoff\ExchangeSequence;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SequenceStore;
use App\Domain\Sequences\ToldChanges;
use App\Models\StoredSequence;
use Illuminate\Support\Collection;

/** What became of a cut that was sent, when it comes back: each difference in words and with its place. */
final class CompareCuts
{
    public function __construct(private readonly SequenceStore $store, private readonly ExchangeSequence $exchange) {}

    /** @return Collection<int, StoredSequence> the cuts with which one can be compared; one of its name first, then the newest */
    public static function with(StoredSequence $stored): Collection
    {
        return StoredSequence::query()
            ->where('production_id', $stored->production_id)
            ->whereKeyNot($stored->id)
            ->whereNull('removed_at')
            ->orderByRaw('name = ? DESC', [$stored->name])
            ->orderByDesc('id')
            ->limit(100)
            ->get();
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
