<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Models\Clip;
use App\Models\ClockOffset;
use App\Models\ShootDay;

/** The line-up of a day as lanes, placements and strays; ticks since midnight on the anchor's clock. */
final class LineupPage
{
    /** @return array<string, mixed> */
    public function of(ShootDay $day): array
    {
        $clips = Clip::query()->with(['placement', 'device', 'take'])->where('shoot_day_id', $day->id)->whereIn('kind', ['picture', 'sound'])->whereNull('import_kind')->orderBy('id')->get();
        $placements = $strays = [];
        foreach ($clips as $clip) {
            $entry = [
                'clip' => $clip->ulid, 'name' => $clip->name, 'device' => $clip->device?->letter, 'kind' => $clip->kind, 'duration_ticks' => $clip->duration_ticks,
                'own_ticks' => $clip->start_ticks, 'take' => $clip->take?->label(), 'take_ulid' => $clip->take?->ulid, 'ready' => $clip->proxied_at !== null, 'has_sound' => ($clip->channels ?? []) !== [],
            ];
            $place = $clip->placement;
            if ($place?->start_ticks === null) {
                $strays[] = $entry + ['reason' => $place->stray_reason ?? 'The day has not been lined up since it came in.', 'is_false_start' => $clip->is_false_start];

                continue;
            }
            $placements[] = $entry + [
                'start_ticks' => $place->start_ticks, 'group' => $place->group, 'way' => $place->way, 'confidence' => $place->confidence, 'sure' => $place->is_sure,
                'drift_ppm' => $place->drift_ppm, 'is_anchor' => ($place->evidence['anchor'] ?? false) === true, 'locked' => $place->locked_at !== null,
                'second_ticks' => $place->evidence['second_ticks'] ?? null, 'agreeing' => $place->evidence['agreeing'] ?? null, 'windows' => $place->evidence['windows'] ?? null,
            ];
        }

        return [
            'placements' => $placements,
            'strays' => $strays,
            'clocks' => ClockOffset::query()->with('device')->where('shoot_day_id', $day->id)->get()
                ->map(static fn (ClockOffset $row): array => ['device' => $row->device->letter, 'learned_ticks' => $row->learned_ticks, 'applied_ticks' => $row->applied_ticks, 'votes' => $row->votes])->all(),
        ];
    }
}
