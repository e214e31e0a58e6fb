<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Footage\ClaimedSlate;
use App\Models\Clip;
use App\Models\ClockOffset;
use App\Models\ShootDay;
use Cartella\Core\Lineup\Gaps;
use Cartella\Core\Lineup\RanAlone;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** The line-up of a day as lanes, placements and strays; ticks since midnight on the anchor's clock. */
final class LineupPage
{
    /** @return array<string, mixed> */
    public function of(ShootDay $day): array
    {
        $clips = self::clips($day);
        $parts = self::parts($day);
        $names = $starts = [];
        foreach ($clips as $clip) {
            $names[$clip->ulid] = $clip->label ?? $clip->name;
            $starts[$clip->ulid] = $clip->start_ticks;
        }
        $placements = $strays = [];
        foreach ($clips as $row) {
            $takes = $parts[$row->id] ?? [];
            $take = $takes[0] ?? null;
            $entry = [
                'clip' => $row->ulid,
                'name' => $names[$row->ulid],
                'device' => $row->device,
                'kind' => $row->kind,
                'duration_ticks' => $row->duration_ticks,
                'own_ticks' => $row->own_ticks,
                'take' => Clip::slatesOf(array_map(static fn(\stdClass $one): string => ClaimedSlate::label((array) $one), $takes)),
                'take_ulid' => $take?->ulid,
                'ready' => $row->proxied_at !== null,
                'has_sound' => (bool) $row->has_sound,
                'roll' => $row->roll,
                'scene' => $take?->scene,
                'left_out' => $row->left_out_at !== null,
                'what' => (string) $take?->description,
                'alone' => (bool) $row->is_wild || (bool) $row->is_false_start || ($take !== null && ($take->is_mos || $take->is_wild)),
            ];
            if ($row->start_ticks === null) {
                $strays[] = $entry + [
                    'reason' =>
                        $row->stray_reason ??
                        ($row->device === null
                            ? 'Nobody has said which device recorded it. Say so in Cards, for the whole card.'
                            : 'The day has not been lined up since it came in.'),
                    'is_false_start' => (bool) $row->is_false_start,
                    'steps' => self::steps($row),
                ];

                continue;
            }
            $evidence = json_decode($row->evidence ?? '[]', true) ?? [];
            $placements[] = $entry + [
                'start_ticks' => $row->start_ticks,
                'group' => $row->group,
                'way' => $row->way,
                'confidence' => (float) $row->confidence,
                'sure' => (bool) $row->is_sure,
                'drift_ppm' => $row->drift_ppm === null ? null : (float) $row->drift_ppm,
                'drift_applied' => (bool) $row->drift_applied,
                'is_anchor' => ($evidence['anchor'] ?? false) === true,
                'locked' => $row->locked_at !== null,
                'second_ticks' => self::second($evidence, $starts),
                'second_against' => isset($evidence['second_against']) ? $names[$evidence['second_against']] ?? null : null,
                'agreeing' => $evidence['agreeing'] ?? null,
                'windows' => $evidence['windows'] ?? null,
                'against' => isset($evidence['against']) ? $names[$evidence['against']] ?? null : null,
                'height' => $evidence['height'] ?? null,
                'runner_up' => $evidence['runner_up'] ?? null,
                'residual_ticks' => $evidence['residual_ticks'] ?? null,
                'clock_disagrees_ticks' => $evidence['clock_disagrees_ticks'] ?? null,
                'point' => $evidence['point'] ?? null,
                'weakest_link' => isset($evidence['weakest_link'])
                    ? array_map(static fn(string $ulid): string => $names[$ulid] ?? 'a clip that is gone', $evidence['weakest_link'])
                    : null,
                'miss_ticks' => $evidence['miss_ticks'] ?? null,
                'laid_by' => $row->group > 0 ? $evidence['laid_by'] ?? null : null,
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

    /** @return Collection<int, \stdClass> each clip with its place; rows, since a model of each of thousands costs six times as much */
    private static function clips(ShootDay $day): Collection
    {
        return Clip::shotOn($day->id)
            ->toBase()
            ->leftJoin('placements', 'placements.clip_id', '=', 'clips.id')
            ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
            ->leftJoin('cards', 'cards.id', '=', 'clips.card_id')
            ->orderBy('clips.id')
            ->get([
                ...['clips.id', 'clips.ulid', 'clips.name', 'clips.label', 'clips.kind', 'clips.duration_ticks', 'clips.proxied_at'],
                ...['clips.start_ticks AS own_ticks', 'clips.is_wild', 'clips.is_false_start', 'devices.letter AS device', 'cards.roll'],
                DB::raw('COALESCE(JSON_LENGTH(clips.channels), 0) > 0 AS has_sound'),
                ...['placements.id AS placement', 'placements.start_ticks', 'placements.group', 'placements.way', 'placements.confidence'],
                ...[
                    'placements.is_sure',
                    'placements.drift_ppm',
                    'placements.drift_applied',
                    'placements.locked_at',
                    'placements.evidence',
                ],
                ...['placements.left_out_at', 'placements.stray_reason'],
            ]);
    }

    /** @return array<int, list<\stdClass>> the takes of which each clip holds a part, in its own order, by the clip's id */
    private static function parts(ShootDay $day): array
    {
        $parts = [];
        $rows = DB::table('take_parts')
            ->join('takes', 'takes.id', '=', 'take_parts.take_id')
            ->whereIn('take_parts.clip_id', Clip::shotOn($day->id)->select('clips.id'))
            ->orderBy('take_parts.in_ticks')
            ->orderBy('take_parts.id')
            ->get([
                ...['take_parts.clip_id', 'takes.ulid', 'takes.scene', 'takes.setup', 'takes.take', 'takes.part', 'takes.description'],
                ...['takes.is_mos', 'takes.is_wild'],
            ]);
        foreach ($rows as $row) {
            $parts[$row->clip_id][] = $row;
        }

        return $parts;
    }

    /**
     * Where the next best match would have a clip, be it along another recording.
     *
     * @param  array<string, mixed>  $evidence
     * @param  array<string, int|null>  $starts  of all clips
     * @return int|null ticks of the day's clock
     */
    private static function second(array $evidence, array $starts): ?int
    {
        $along = $starts[$evidence['second_against'] ?? ($evidence['against'] ?? '')] ?? null;

        return isset($evidence['second_ticks']) && $along !== null ? $along + $evidence['second_ticks'] : null;
    }

    /**
     * What may be done about a clip without a place, the fitting step first.
     *
     * @return list<'back'|'lineup'|'clap'|'hand'|'false_start'|'out'|'wild'>
     */
    private static function steps(\stdClass $clip): array
    {
        return match (true) {
            $clip->left_out_at !== null => ['back'],
            // Nothing has looked for its place yet.
            $clip->placement === null => $clip->device === null ? ['out'] : ['lineup', 'out'],
            $clip->kind === 'sound' => ['hand', 'wild', 'out'],
            (bool) $clip->is_false_start => ['hand', 'out'],
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
