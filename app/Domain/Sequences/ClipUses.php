<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Models\Clip;
use App\Models\StoredSequence;

/** Which reels and cuts show a clip. */
final class ClipUses
{
    /** @return list<array{sequence: StoredSequence, times: int}> newest first */
    public function of(Clip $clip): array
    {
        return StoredSequence::query()
            ->join('sequence_uses', 'sequence_uses.sequence_id', '=', 'sequences.id')
            ->where('sequence_uses.clip_id', $clip->id)
            ->where('sequences.production_id', $clip->production_id)
            ->whereNull('sequences.removed_at')
            ->orderByDesc('sequences.id')
            ->get(['sequences.id', 'sequences.ulid', 'sequences.kind', 'sequences.name', 'sequence_uses.times'])
            ->map(static fn(StoredSequence $one): array => ['sequence' => $one, 'times' => (int) $one->getAttribute('times')])
            ->all();
    }
}
