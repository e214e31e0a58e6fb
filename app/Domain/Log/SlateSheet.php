<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Models\ShootDay;
use App\Models\Take;
use App\Models\TakeFact;
use Cartella\Core\Log\ShotSize;
use Illuminate\Support\Facades\DB;

/**
 * The slate sheet of a day: takes in slate order, what each device has of them, and the clips that no take claims.
 *
 * A handful of queries whatever the size of the day. Times are ticks.
 */
final class SlateSheet
{
    public function __construct(private readonly SceneCoverage $scenes)
    {
    }

    /** @return array{takes: list<array<string, mixed>>, unslated: list<array<string, mixed>>, scenes: object} */
    public function of(ShootDay $day): array
    {
        $clips = $this->clips($day);
        $byTake = $unslated = [];
        foreach ($clips as $clip) {
            if ($clip['take_id'] === null) {
                unset($clip['take_id']);
                $unslated[] = $clip;
            } else {
                $byTake[$clip['take_id']][] = $clip;
            }
        }
        $disputes = $this->disputes($day);
        $notes = [];
        foreach (DB::table('notes')->join('takes', 'takes.id', '=', 'notes.take_id')->where('takes.shoot_day_id', $day->id)->orderBy('notes.id')->get(['notes.take_id', 'notes.text']) as $note) {
            $notes[$note->take_id][] = $note->text;
        }
        $takes = [];
        foreach (DB::table('takes')->where('shoot_day_id', $day->id)->orderBy('sort_key')->orderBy('id')->get() as $row) {
            $own = array_map(static fn (array $clip): array => array_diff_key($clip, ['take_id' => 0]), $byTake[$row->id] ?? []);
            $takes[] = self::take($row, $own) + ['disputes' => $disputes[$row->id]['open'] ?? [], 'said_by' => $disputes[$row->id]['place'] ?? null, 'screening' => implode(' · ', $notes[$row->id] ?? [])];
        }

        return [
            'takes' => self::withMissed($takes),
            'unslated' => $unslated,
            'scenes' => $this->scenes->of($day->production_id, array_values(array_unique(array_map(strval(...), array_column($takes, 'scene'))))),
        ];
    }

    /**
     * What sources disagree about, and the script notes that name a take.
     *
     * @return array<int, array{open: list<array<string, mixed>>, place: string|null}> by the take's id
     */
    private function disputes(ShootDay $day): array
    {
        $disputes = [];
        $facts = TakeFact::query()->join('takes', 'takes.id', '=', 'take_facts.take_id')->where('takes.shoot_day_id', $day->id)->orderBy('take_facts.id')->get('take_facts.*')->groupBy('take_id');
        foreach (Take::query()->whereKey($facts->keys())->get() as $take) {
            $disputes[$take->id] = ['open' => TakeFacts::disputes($take, $facts[$take->id]), 'place' => $facts[$take->id]->firstWhere('source', 'script')?->place];
        }

        return $disputes;
    }

    /**
     * @param  list<array<string, mixed>>  $clips
     * @return array<string, mixed>
     */
    private static function take(object $row, array $clips): array
    {
        $claims = json_decode($row->claims ?? 'null', true) ?? [];

        return [
            'ulid' => $row->ulid, 'scene' => $row->scene, 'setup' => $row->setup, 'take' => (int) $row->take, 'part' => $row->part, 'name' => $row->name,
            'description' => $row->description, 'size' => $row->size, 'status' => $row->status, 'notes' => $row->notes ?? '', 'keywords' => $row->keywords,
            'is_mos' => (bool) $row->is_mos, 'is_tail_slate' => (bool) $row->is_tail_slate, 'is_wild' => (bool) $row->is_wild, 'is_guide_only' => (bool) $row->is_guide_only,
            'is_pickup' => (bool) $row->is_pickup, 'is_false_start' => (bool) $row->is_false_start, 'width' => ShotSize::width($row->size),
            'absent_devices' => json_decode($row->absent_devices ?? '[]', true),
            'claims' => $row->settled === null && count(array_unique(array_map(ClaimedSlate::label(...), $claims))) > 1 ? $claims : [],
            'clips' => $clips,
            'sync' => self::sync($row, $clips),
        ];
    }

    /**
     * Says of each take which cameras it misses: those that rolled on at least half of its setup's takes, have nothing
     * of this one, and were not said to have stood still. Sound alone misses no camera when it is wild.
     *
     * @param  list<array<string, mixed>>  $takes
     * @return list<array<string, mixed>>
     */
    private static function withMissed(array $takes): array
    {
        $seen = $count = [];
        $lettersOf = static fn (array $take): array => array_values(array_unique(array_column(array_filter($take['clips'], static fn (array $clip): bool => $clip['kind'] === 'picture' && $clip['device'] !== null), 'device')));
        foreach ($takes as $take) {
            $letters = $lettersOf($take);
            $count[$take['setup']] = ($count[$take['setup']] ?? 0) + (int) ($letters !== []);
            foreach ($letters as $letter) {
                $seen[$take['setup']][(string) $letter] = ($seen[$take['setup']][(string) $letter] ?? 0) + 1;
            }
        }
        foreach ($takes as $index => $take) {
            $missed = [];
            foreach ($take['is_wild'] || $take['is_false_start'] ? [] : $seen[$take['setup']] ?? [] as $letter => $times) {
                if (2 * $times >= $count[$take['setup']] && ! in_array((string) $letter, [...$lettersOf($take), ...$take['absent_devices']], true)) {
                    $missed[] = (string) $letter;
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
     */
    private static function sync(object $row, array $clips): string
    {
        $pictures = array_filter($clips, static fn (array $clip): bool => $clip['kind'] === 'picture');
        $sounds = array_filter($clips, static fn (array $clip): bool => $clip['kind'] === 'sound');
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
            return $row->is_guide_only ? 'guide' : 'no sound';
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

    /** @return list<array<string, mixed>> */
    private function clips(ShootDay $day): array
    {
        $rows = DB::table('clips')
            ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
            ->leftJoin('placements', 'placements.clip_id', '=', 'clips.id')
            ->where('clips.shoot_day_id', $day->id)->whereNull('clips.import_kind')->whereIn('clips.kind', ['picture', 'sound', 'other'])
            ->orderBy('devices.lane')->orderBy('clips.start_ticks')->orderBy('clips.id')
            ->get(['clips.ulid', 'clips.take_id', 'clips.kind', 'clips.name', 'clips.label', 'clips.slate_from', 'clips.duration_ticks', 'clips.start_ticks', 'clips.is_wild', 'clips.is_false_start',
                'clips.problems', 'clips.proxied_at', 'devices.letter', 'placements.way', 'placements.is_sure', 'placements.start_ticks as placed_ticks', 'placements.stray_reason']);

        return $rows->map(static fn (object $row): array => [
            'ulid' => $row->ulid, 'take_id' => $row->take_id, 'kind' => $row->kind, 'name' => $row->label ?? $row->name, 'file' => $row->name, 'device' => $row->letter, 'slate_from' => $row->slate_from,
            'duration_ticks' => $row->duration_ticks === null ? null : (int) $row->duration_ticks,
            'start_ticks' => $row->start_ticks === null ? null : (int) $row->start_ticks,
            'placed_ticks' => $row->placed_ticks === null ? null : (int) $row->placed_ticks,
            'way' => $row->placed_ticks === null ? null : $row->way, 'sure' => (bool) $row->is_sure, 'stray' => $row->stray_reason,
            'is_wild' => (bool) $row->is_wild, 'is_false_start' => (bool) $row->is_false_start,
            'problems' => json_decode($row->problems ?? '[]', true) ?? [], 'ready' => $row->proxied_at !== null,
        ])->all();
    }
}
