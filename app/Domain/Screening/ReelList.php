<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Models\SequenceStep;
use App\Models\ShootDay;
use App\Models\StoredSequence;

/** The reels of a day, newest first, with a picture for each and what changed when they were built again last. */
final class ReelList
{
    /** @return list<array{reel: StoredSequence, first: string|null, again: SequenceStep|null}> */
    public function of(ShootDay $day): array
    {
        // The content of each is long, and only its first clip is asked of it.
        $reels = $day
            ->reels()
            ->latest('id')
            ->selectRaw(
                'id, ulid, kind, name, recipe, items, running_ticks, created_at, ' . "JSON_VALUE(content, '$.sources[0].id') AS first_clip",
            )
            ->get();
        $again = SequenceStep::query()
            ->whereIn('sequence_id', $reels->modelKeys())
            ->whereNull('user_id')
            ->whereNull('takes_back')
            ->orderBy('number')
            ->get()
            ->keyBy('sequence_id');

        return $reels
            ->map(
                static fn(StoredSequence $reel): array => [
                    'reel' => $reel,
                    'first' => $reel->getAttribute('first_clip'),
                    'again' => $again[$reel->id] ?? null,
                ],
            )
            ->all();
    }
}
