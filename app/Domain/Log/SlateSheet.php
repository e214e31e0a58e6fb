<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Footage\ClaimedSlate;
use App\Domain\Footage\Screened;
use App\Domain\Footage\TakeFacts;
use App\Domain\Footage\TakeSync;
use App\Models\ShootDay;
use Cartella\Core\Log\ShotSize;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/**
 * The slate sheet of a day: takes in slate order, what each device has of them, and the clips that no take claims.
 *
 * A handful of queries whatever the size of the day. Times are ticks.
 */
final class SlateSheet
{
    /**
     * What the sheet shows; `recorders` are the letters of the recorders that ran that day.
     *
     * @return array{takes: list<array<string, mixed>>, unslated: list<array<string, mixed>>, recorders: list<string>}
     */
    public function of(ShootDay $day): array
    {
        $byTake = $this->clips($day);

        $recorders = [];
        foreach ($byTake as $clips) {
            foreach ($clips as $clip) {
                if ($clip['kind'] === 'sound' && $clip['device'] !== null) {
                    $recorders[$clip['device']] = true;
                }
            }
        }
        $recorders = array_map(strval(...), array_keys($recorders));
        $takes = DB::table('takes')->where('shoot_day_id', $day->id);

        return [
            'takes' => $this->takes($takes, $byTake, $recorders),
            'recorders' => $recorders,
            'unslated' => $byTake[0] ?? [],
        ];
    }

    /**
     * Some takes of a day as they stand in its sheet, for a page that has the rest.
     *
     * @param  list<string>  $ulids
     * @return list<array<string, mixed>>
     */
    public function some(ShootDay $day, array $ulids): array
    {
        // Which cameras a take misses is told by the others of its setup.
        $setups = DB::table('takes')->where('shoot_day_id', $day->id)->whereIn('ulid', $ulids)->distinct()->pluck('setup');
        $rows = DB::table('takes')->where('shoot_day_id', $day->id)->whereIn('setup', $setups);
        $byTake = $this->clips($day, (clone $rows)->pluck('id')->all());

        return array_values(
            array_filter(
                $this->takes($rows, $byTake, self::recorders($day)),
                static fn(array $take): bool => in_array($take['ulid'], $ulids, true),
            ),
        );
    }

    /**
     * @param  array<int, list<array<string, mixed>>>  $byTake  clips
     * @param  list<string>  $recorders  of the day, by letter
     * @return list<array<string, mixed>>
     */
    private function takes(Builder $query, array $byTake, array $recorders): array
    {
        $rows = (clone $query)->orderBy('sort_key')->orderBy('id')->get();
        $facts = $script = [];
        $ids = (clone $query)->select('takes.id');
        foreach (TakeFacts::differing(DB::table('take_facts')->whereIn('take_id', $ids)) as $fact) {
            $facts[$fact->take_id][] = $fact;
        }
        foreach (
            // From the index alone; a day of two thousand takes has as many rows of each file.
            DB::table('take_facts')
                ->whereIn('take_id', $ids)
                ->where('source', 'script')
                ->groupBy('take_id', 'place')
                ->orderByRaw('MIN(id)')
                ->get(['take_id', 'place'])
            as $fact
        ) {
            $script[$fact->take_id] ??= $fact->place;
        }
        $screened = Screened::lines(clone $ids);
        $takes = [];
        foreach ($rows as $row) {
            $own = $byTake[$row->id] ?? [];
            $said = $facts[$row->id] ?? [];
            $takes[] = self::take($row, $own, $recorders) + [
                'own' => self::ownFields($row),
                'disputes' => $said === [] ? [] : TakeFacts::open((array) $row, json_decode($row->set_by ?? '[]', true), $said),
                'said_by' => $script[$row->id] ?? null,
                'screening' => $screened[$row->id] ?? '',
            ];
        }

        return self::withMissed($takes);
    }

    /**
     * @param  list<array<string, mixed>>  $clips
     * @param  list<string>  $recorders  of the day, by letter
     * @return array<string, mixed>
     */
    private static function take(object $row, array $clips, array $recorders): array
    {
        $claims = json_decode($row->claims ?? 'null', true) ?? [];

        return [
            'ulid' => $row->ulid,
            'scene' => $row->scene,
            'setup' => $row->setup,
            'take' => (int) $row->take,
            'part' => $row->part,
            'name' => $row->name,
            'description' => $row->description,
            'size' => $row->size,
            'status' => $row->status,
            'notes' => $row->notes ?? '',
            'keywords' => $row->keywords,
            'is_mos' => (bool) $row->is_mos,
            'is_tail_slate' => (bool) $row->is_tail_slate,
            'is_wild' => (bool) $row->is_wild,
            'is_guide_only' => (bool) $row->is_guide_only,
            'is_pickup' => (bool) $row->is_pickup,
            'is_false_start' => (bool) $row->is_false_start,
            'width' => ShotSize::width($row->size),
            'absent_devices' => json_decode($row->absent_devices ?? '[]', true),
            'claims' => $row->settled === null && count(array_unique(array_map(ClaimedSlate::label(...), $claims))) > 1 ? $claims : [],
            'clips' => $clips,
            'sync' => self::sync($row, $clips, $recorders),
        ];
    }

    /** @return list<string> letters of what recorded sound on a day */
    private static function recorders(ShootDay $day): array
    {
        return DB::table('clips')
            ->join('devices', 'devices.id', '=', 'clips.device_id')
            ->where('clips.shoot_day_id', $day->id)
            ->where('clips.kind', 'sound')
            ->whereNull('clips.away_at')
            ->distinct()
            ->orderBy('devices.lane')
            ->pluck('devices.letter')
            ->all();
    }

    /** @return array<string, string|bool> what the production added, by `own:` and the field's name */
    private static function ownFields(object $row): array
    {
        $own = [];
        foreach (json_decode($row->own ?? '[]', true) as $name => $value) {
            $own["own:$name"] = $value;
        }

        return $own;
    }

    /**
     * Says of each take which cameras and recorders it misses: those that rolled on at least half of its setup's takes, have
     * nothing of this one, and were not said to have stood still. Sound alone misses no camera when it is wild; a take
     * without any sound is asked about as that, and misses no recorder of its own.
     *
     * @param  list<array<string, mixed>>  $takes
     * @return list<array<string, mixed>>
     */
    private static function withMissed(array $takes): array
    {
        $seen = $count = $letters = [];
        foreach ($takes as $index => $take) {
            $own = ['picture' => [], 'sound' => []];
            foreach ($take['clips'] as $clip) {
                if ($clip['device'] !== null) {
                    $own[$clip['kind']][$clip['device']] = true;
                }
            }
            $letters[$index] = $own;
            foreach (['picture', 'sound'] as $kind) {
                $count[$kind][$take['setup']] = ($count[$kind][$take['setup']] ?? 0) + (int) ($own[$kind] !== []);
                foreach ($own[$kind] as $letter => $_) {
                    $seen[$kind][$take['setup']][$letter] = ($seen[$kind][$take['setup']][$letter] ?? 0) + 1;
                }
            }
        }
        foreach ($takes as $index => $take) {
            $missed = [];
            foreach (['picture', 'sound'] as $kind) {
                $own = $letters[$index][$kind];
                $isAsked =
                    $kind === 'picture'
                        ? !$take['is_wild'] && !$take['is_false_start']
                        : $own !== [] && !$take['is_mos'] && !$take['is_guide_only'] && !$take['is_false_start'];
                foreach ($isAsked ? $seen[$kind][$take['setup']] ?? [] : [] as $letter => $times) {
                    if (
                        2 * $times >= $count[$kind][$take['setup']] &&
                        !isset($own[$letter]) &&
                        !in_array((string) $letter, $take['absent_devices'], true)
                    ) {
                        $missed[] = (string) $letter;
                    }
                }
            }
            $takes[$index]['missed'] = $missed;
        }

        return $takes;
    }

    /**
     * How the take's picture found its sound: the least sure way among its clips.
     *
     * @param  list<array<string, mixed>>  $clips
     * @param  list<string>  $recorders  of the day, by letter
     */
    private static function sync(object $row, array $clips, array $recorders): string
    {
        $isStill = $recorders !== [] && array_diff($recorders, json_decode($row->absent_devices ?? '[]', true)) === [];
        $pictures = $sounds = [];
        foreach ($clips as $clip) {
            if ($clip['kind'] === 'picture') {
                $pictures[] = $clip;
            } elseif ($clip['kind'] === 'sound') {
                $sounds[] = $clip;
            }
        }
        if ($clips === []) {
            return 'no file';
        }
        if ($row->is_mos) {
            return 'mos';
        }
        if ($pictures === []) {
            return $row->is_wild ? 'wild' : 'no picture';
        }
        if ($sounds === []) {
            // Of a recorder that was said to have stood still no sound is missed.
            return $row->is_guide_only || $isStill ? 'guide' : 'no sound';
        }
        $windows = static fn(array $clips): array => array_map(
            static fn(array $clip): array => [$clip['clock'], $clip['placed_ticks'], $clip['placed_ticks'] + (int) $clip['duration_ticks']],
            array_filter($clips, static fn(array $clip): bool => $clip['placed_ticks'] !== null),
        );
        if (!TakeSync::meet($windows($pictures), $windows($sounds))) {
            return 'not lined up';
        }
        $ways = [];
        foreach ($pictures as $clip) {
            if ($clip['way'] === null) {
                return 'not lined up';
            }
            $ways[] = $clip['sure'] ? $clip['way'] : 'unsure';
        }
        foreach (['unsure', 'start', 'clock', 'timecode', 'hand', 'sound'] as $way) {
            if (in_array($way, $ways, true)) {
                return $way;
            }
        }

        return 'not lined up';
    }

    /**
     * @param  list<int>|null  $takes  only of these
     * @return array<int, list<array<string, mixed>>> by take; 0 has those that no take claims
     */
    private function clips(ShootDay $day, ?array $takes = null): array
    {
        // In the order of the day's index, which is named because a tenth of all clips looks to the database like a reason to read
        // them all: no sort, so that long texts may be among the columns.
        $rows = DB::table('clips')
            // Those of some takes are found by their takes.
            ->when($takes === null, static fn(Builder $query) => $query->forceIndex('clips_day_device_start'))
            ->leftJoin('placements', 'placements.clip_id', '=', 'clips.id')
            ->leftJoin('take_parts', 'take_parts.clip_id', '=', 'clips.id')
            ->where('clips.shoot_day_id', $day->id)
            ->when($takes !== null, static fn(Builder $query) => $query->whereIn('take_parts.take_id', $takes))
            ->whereNull('clips.away_at')
            ->whereNull('clips.import_kind')
            ->whereIn('clips.kind', ['picture', 'sound', 'other'])
            ->orderBy('clips.device_id')
            ->orderBy('clips.start_ticks')
            ->orderBy('clips.id')
            ->get([
                'clips.id',
                'clips.ulid',
                'clips.device_id',
                'take_parts.take_id',
                'take_parts.in_ticks',
                'take_parts.out_ticks',
                'take_parts.said_by',
                'placements.group',
                'clips.kind',
                'clips.name',
                'clips.label',
                'clips.duration_ticks',
                'clips.start_ticks',
                'clips.is_wild',
                'clips.is_false_start',
                'clips.proxied_at',
                'clips.problems',
                'placements.way',
                'placements.is_sure',
                'placements.start_ticks as placed_ticks',
                'placements.stray_reason',
            ]);
        $devices = DB::table('devices')->where('production_id', $day->production_id)->orderBy('lane')->pluck('letter', 'id');
        $byDevice = [];
        foreach ($rows as $row) {
            $byDevice[$row->device_id ?? 0][] = $row;
        }
        $clips = [];
        foreach ([0, ...$devices->keys()] as $device) {
            foreach ($byDevice[$device] ?? [] as $row) {
                $clips[$row->take_id ?? 0][] = self::clip($row, $devices[$device] ?? null);
            }
        }

        return $clips;
    }

    /** @return array<string, mixed> */
    private static function clip(object $row, ?string $letter): array
    {
        return [
            'ulid' => $row->ulid,
            'kind' => $row->kind,
            'name' => $row->label ?? $row->name,
            'file' => $row->name,
            'device' => $letter,
            'slate_from' => $row->said_by,
            // Of a recording over several takes, the stretch that belongs to this one.
            'in_ticks' => $row->in_ticks,
            'duration_ticks' => $row->duration_ticks === null ? null : ($row->out_ticks ?? $row->duration_ticks) - (int) $row->in_ticks,
            'start_ticks' => $row->start_ticks === null ? null : $row->start_ticks + (int) $row->in_ticks,
            'placed_ticks' => $row->placed_ticks === null ? null : $row->placed_ticks + (int) $row->in_ticks,
            'clock' => $row->placed_ticks === null ? null : (int) $row->group,
            'way' => $row->placed_ticks === null ? null : $row->way,
            'sure' => (bool) $row->is_sure,
            'stray' => $row->stray_reason,
            'is_wild' => (bool) $row->is_wild,
            'is_false_start' => (bool) $row->is_false_start,
            'problems' => $row->problems === null || $row->problems === '[]' ? [] : json_decode($row->problems, true),
            'ready' => $row->proxied_at !== null,
        ];
    }
}
