<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\Handoff;
use App\Models\Production;

/** The hand-offs of a production, newest first. */
final class HandoffList
{
    /** @return list<array<string, mixed>> */
    public function of(Production $production): array
    {
        return Handoff::query()
            ->with(['user', 'answeredBy'])
            ->where('production_id', $production->id)
            ->latest('number')
            ->limit(200)
            ->get()
            ->map(
                static fn(Handoff $handoff): array => [
                    'ulid' => $handoff->ulid,
                    'number' => $handoff->number,
                    'title' => $handoff->title,
                    'folder' => $handoff->folder,
                    'state' => $handoff->state,
                    'summary' => $handoff->summary,
                    'made_by' => $handoff->user?->name,
                    'made_at' => $handoff->created_at?->toIso8601String(),
                    'delivered_at' => $handoff->delivered_at?->toIso8601String(),
                    'answered_by' => $handoff->answeredBy?->name,
                    'answered_at' => $handoff->answered_at?->toIso8601String(),
                    'query' => $handoff->query,
                ],
            )
            ->all();
    }
}
