<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Models\Marker;
use App\Models\Take;

/** The markers that a take carries: those of its clips, of a recording over several takes the ones within its own stretch. */
final class TakeMarkers
{
    /** @return list<Marker> with their clips, cameras and recorders in the order of their lanes, then in their order in the clip */
    public static function of(Take $take): array
    {
        $parts = $take->parts()->get()->groupBy('clip_id');
        $markers = Marker::query()
            ->whereIn('clip_id', $parts->keys())
            ->with(['clip.device', 'clip.production', 'user'])
            ->get()
            ->filter(static function (Marker $marker) use ($parts): bool {
                foreach ($parts[$marker->clip_id] ?? [] as $part) {
                    $end = $marker->out_ticks ?? $marker->in_ticks + 1;
                    if ($end > ($part->in_ticks ?? 0) && $marker->in_ticks < ($part->out_ticks ?? PHP_INT_MAX)) {
                        return true;
                    }
                }

                return false;
            });

        return $markers
            ->sortBy(
                static fn(Marker $marker): array => [$marker->clip->device->lane ?? 99, $marker->clip_id, $marker->in_ticks, $marker->id],
            )
            ->values()
            ->all();
    }
}
