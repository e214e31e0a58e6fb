<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Models\Clip;
use App\Models\ClockOffset;
use App\Models\Placement;
use App\Models\ShootDay;
use Cartella\Core\Lineup\Gaps;
use Cartella\Core\Lineup\RanAlone;

/** The line-up of a day as lanes, placements and strays; ticks since midnight on the anchor's clock. */
final class LineupPage
{
    /** @return array<string, mixed> */
    public function of(ShootDay $day): array
    {
        $clips = Clip::shotOn($day->id)
            ->with(['placement', 'device', 'parts.take', 'card'])
            ->orderBy('id')
            ->get();
        $names = $clips->mapWithKeys(static fn(Clip $clip): array => [$clip->ulid => $clip->title()])->all();
        $starts = $clips->mapWithKeys(static fn(Clip $clip): array => [$clip->ulid => $clip->placement?->start_ticks])->all();
        $placements = $strays = [];
        foreach ($clips as $clip) {
            $take = $clip->parts->first()?->take;
            $entry = [
                'clip' => $clip->ulid,
                'name' => $clip->title(),
                'device' => $clip->device?->letter,
                'kind' => $clip->kind,
                'duration_ticks' => $clip->duration_ticks,
                'own_ticks' => $clip->start_ticks,
                'take' => $clip->slates(),
                'take_ulid' => $take?->ulid,
                'ready' => $clip->proxied_at !== null,
                'has_sound' => ($clip->channels ?? []) !== [],
                'roll' => $clip->card?->roll,
                'scene' => $take?->scene,
                'left_out' => $clip->placement?->left_out_at !== null,
                'what' => (string) $take?->description,
                'alone' => $clip->is_wild || $clip->is_false_start || $take?->is_mos === true || $take?->is_wild === true,
            ];
            $place = $clip->placement;
            if ($place?->start_ticks === null) {
                $strays[] = $entry + [
                    'reason' =>
                        $place->stray_reason ??
                        ($clip->device_id === null
                            ? 'Nobody has said which device recorded it. Say so in Cards, for the whole card.'
                            : 'The day has not been lined up since it came in.'),
                    'is_false_start' => $clip->is_false_start,
                    'steps' => self::steps($clip),
                ];

                continue;
            }
            $placements[] = $entry + [
                'start_ticks' => $place->start_ticks,
                'group' => $place->group,
                'way' => $place->way,
                'confidence' => $place->confidence,
                'sure' => $place->is_sure,
                'drift_ppm' => $place->drift_ppm,
                'drift_applied' => $place->drift_applied,
                'is_anchor' => ($place->evidence['anchor'] ?? false) === true,
                'locked' => $place->locked_at !== null,
                'second_ticks' => self::second($place, $starts),
                'second_against' => isset($place->evidence['second_against']) ? $names[$place->evidence['second_against']] ?? null : null,
                'agreeing' => $place->evidence['agreeing'] ?? null,
                'windows' => $place->evidence['windows'] ?? null,
                'against' => isset($place->evidence['against']) ? $names[$place->evidence['against']] ?? null : null,
                'height' => $place->evidence['height'] ?? null,
                'runner_up' => $place->evidence['runner_up'] ?? null,
                'residual_ticks' => $place->evidence['residual_ticks'] ?? null,
                'clock_disagrees_ticks' => $place->evidence['clock_disagrees_ticks'] ?? null,
                'point' => $place->evidence['point'] ?? null,
                'weakest_link' => isset($place->evidence['weakest_link'])
                    ? array_map(static fn(string $ulid): string => $names[$ulid] ?? 'a clip that is gone', $place->evidence['weakest_link'])
                    : null,
                'miss_ticks' => $place->evidence['miss_ticks'] ?? null,
                'laid_by' => $place->group > 0 ? $place->evidence['laid_by'] ?? null : null,
            ];
        }

        return [
            'placements' => $placements,
            'strays' => $strays,
            'holes' => self::holes($placements),
            'clocks' => ClockOffset::query()
                ->with('device')
                ->where('shoot_day_id', $day->id)
                ->get()
                ->map(
                    static fn(ClockOffset $row): array => [
                        'device' => $row->device->letter,
                        'learned_ticks' => $row->learned_ticks,
                        'applied_ticks' => $row->applied_ticks,
                        'votes' => $row->votes,
                    ],
                )
                ->all(),
        ];
    }

    /**
     * Where the next best match would have a clip, be it along another recording.
     *
     * @param  array<string, int|null>  $starts  of all clips
     * @return int|null ticks of the day's clock
     */
    private static function second(Placement $place, array $starts): ?int
    {
        $known = $place->evidence ?? [];
        $along = $starts[$known['second_against'] ?? ($known['against'] ?? '')] ?? null;

        return isset($known['second_ticks']) && $along !== null ? $along + $known['second_ticks'] : null;
    }

    /**
     * What may be done about a clip without a place, the fitting step first.
     *
     * @return list<'back'|'lineup'|'clap'|'hand'|'false_start'|'out'|'wild'>
     */
    private static function steps(Clip $clip): array
    {
        return match (true) {
            $clip->placement?->left_out_at !== null => ['back'],
            // Nothing has looked for its place yet.
            $clip->placement === null => $clip->device_id === null ? ['out'] : ['lineup', 'out'],
            $clip->isSound() => ['hand', 'wild', 'out'],
            $clip->is_false_start => ['hand', 'out'],
            // So short that nobody spoke: it was started by mistake.
            $clip->duration_ticks < RanAlone::SHORT_TICKS => ['false_start', 'clap', 'out'],
            default => ['clap', 'hand', 'false_start', 'out'],
        };
    }

    /**
     * @param  list<array<string, mixed>>  $placements
     * @return list<array{device: string, from_ticks: int, to_ticks: int}> moments of the day's clock that a device missed
     */
    private static function holes(array $placements): array
    {
        $lanes = [];
        foreach ($placements as $one) {
            if ($one['group'] === 0) {
                $lanes[(string) $one['device']][] = [
                    $one['start_ticks'],
                    $one['start_ticks'] + (int) $one['duration_ticks'],
                    $one['alone'],
                ];
            }
        }
        $holes = [];
        foreach (Gaps::of($lanes) as $device => $missed) {
            foreach ($missed as [$from, $to]) {
                $holes[] = ['device' => (string) $device, 'from_ticks' => $from, 'to_ticks' => $to];
            }
        }

        return $holes;
    }
}
