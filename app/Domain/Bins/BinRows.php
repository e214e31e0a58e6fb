<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Domain\Footage\Screened;
use App\Models\Production;
use Cartella\Core\Fields\TakeFields;
use Cartella\Core\Footage\Reference;
use Illuminate\Support\Facades\DB;

/** What lies in a bin, page by page, as its rows and pictures show it. Ticks. */
final class BinRows
{
    private const OF_CLIPS = [
        'clips.id',
        'clips.ulid',
        'clips.name',
        'clips.label',
        'clips.kind',
        'clips.import_kind',
        'clips.duration_ticks',
        'clips.start_ticks',
        'clips.recorded_at',
        'clips.proxied_at',
        'clips.away_at',
        'clips.colour',
        'clips.channels',
        'devices.letter',
        'devices.lane',
        'shoot_days.number as day',
    ];

    /**
     * @param  int  $from  0-based
     * @return array{total: int, ticks: int|null, from: int, rows: list<array<string, mixed>>} ticks as {@see BinQuery::counted}
     */
    public function of(Production $production, BinQuery $query, int $from, int $limit): array
    {
        ['total' => $total, 'ticks' => $ticks, 'entries' => $entries] = $query->counted($from, $limit);

        return compact('total', 'ticks', 'from') + ['rows' => $this->rows($production, $entries, $query->scene)];
    }

    /** @return list<int> the clips that are behind what lies in a bin; none for a bin that is not there */
    public function clipIds(Production $production, string $key): array
    {
        $bin = BinKey::parse($key);

        return ($bin === null ? null : BinQuery::of($production, $bin))?->clipIds() ?? [];
    }

    /** @return list<int> the takes that lie in a bin, or of which a picture does; none for a bin that is not there */
    public function takeIds(Production $production, string $key): array
    {
        $bin = BinKey::parse($key);

        return ($bin === null ? null : BinQuery::of($production, $bin))?->takeIds() ?? [];
    }

    /**
     * @param  list<array{kind: EntryKind, id: int, ref: string}>  $page
     * @param  string|null  $scene  of a recording over takes of several scenes, a scene's bin shows the one of its own
     * @return list<array<string, mixed>>
     */
    private function rows(Production $production, array $page, ?string $scene): array
    {
        $ids = static fn(EntryKind $kind): array => array_column(
            array_filter($page, static fn(array $one): bool => $one['kind'] === $kind),
            'id',
        );
        $subclips = DB::table('subclips')->whereIntegerInRaw('id', $ids(EntryKind::Subclip))->get()->keyBy('id')->all();
        $sequences = DB::table('sequences')->whereIntegerInRaw('id', $ids(EntryKind::Sequence))->get()->keyBy('id')->all();
        $parts = $this->parts($ids(EntryKind::Take));
        $clipIds = array_values(
            array_unique([
                ...$ids(EntryKind::Clip),
                ...array_map(static fn(object $one): int => (int) $one->clip_id, $subclips),
                ...array_merge(...array_values($parts)),
            ]),
        );
        $clips = DB::table('clips')
            ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
            ->leftJoin('shoot_days', 'shoot_days.id', '=', 'clips.shoot_day_id')
            ->whereIntegerInRaw('clips.id', $clipIds)
            ->get(self::OF_CLIPS)
            ->keyBy('id')
            ->all();
        $takeOf = DB::table('take_parts')
            ->join('takes', 'takes.id', '=', 'take_parts.take_id')
            ->whereIntegerInRaw('take_parts.clip_id', [
                ...$ids(EntryKind::Clip),
                ...array_map(static fn(object $one): int => (int) $one->clip_id, $subclips),
            ])
            ->when($scene !== null, static fn($query) => $query->where('takes.scene', $scene))
            ->orderByDesc('takes.sort_key')
            ->pluck('take_parts.take_id', 'take_parts.clip_id')
            ->all();
        $takes = DB::table('takes')
            ->whereIntegerInRaw('id', [...$ids(EntryKind::Take), ...array_values($takeOf)])
            ->get()
            ->keyBy('id')
            ->all();
        $uses = $this->uses($clipIds);
        $screened = Screened::lines(array_map(intval(...), array_keys($takes)));
        $ranges = $this->ranges($page);
        $fields = $production->fields();
        $rows = [];
        foreach ($page as ['kind' => $kind, 'id' => $id, 'ref' => $ref]) {
            $behind = match ($kind) {
                EntryKind::Clip => [$id],
                EntryKind::Subclip => [(int) $subclips[$id]->clip_id],
                EntryKind::Take => $parts[$id] ?? [],
                EntryKind::Sequence => [],
            };
            $behind = array_values(array_filter(array_map(static fn(int $one): ?object => $clips[$one] ?? null, $behind)));
            $take = $takes[$kind === EntryKind::Take ? $id : $takeOf[$behind[0]->id ?? 0] ?? 0] ?? null;
            if ($take !== null) {
                $take->screening = $screened[$take->id] ?? '';
            }
            $row =
                [
                    'used' => self::used($behind, $uses),
                    'angles' => $kind === EntryKind::Take ? array_map(self::angle(...), $behind) : [],
                ] + self::row($kind, $ref, self::first($behind), $take, $fields);
            $rows[] = match ($kind) {
                EntryKind::Clip => ($ranges[$ref] ?? []) + self::stretch($ref) + $row,
                EntryKind::Take => self::ofTake($take, $behind) + $row,
                EntryKind::Subclip => self::ofSubclip($subclips[$id]) + $row,
                EntryKind::Sequence => [
                    'name' => $sequences[$id]->name,
                    'duration_ticks' => (int) $sequences[$id]->running_ticks,
                    'sequence' => ['ulid' => $sequences[$id]->ulid, 'kind' => $sequences[$id]->kind],
                ] + $row,
            };
        }

        return $rows;
    }

    /**
     * Stretches of clips that a marker has, by its name.
     *
     * @param  list<array{kind: EntryKind, id: int, ref: string}>  $page
     * @return array<string, array{name: string}> by reference
     */
    private function ranges(array $page): array
    {
        $spans = [];
        foreach ($page as ['kind' => $kind, 'id' => $id, 'ref' => $ref]) {
            $span = $kind === EntryKind::Clip && str_contains($ref, '#') ? Reference::parse($ref)->span : null;
            if ($span !== null) {
                $spans["$id $span->inTicks $span->outTicks"] = $ref;
            }
        }
        $names = [];
        $clips = array_map(static fn(string $key): int => (int) $key, array_keys($spans));
        $markers = $spans === [] ? [] : DB::table('markers')->whereIntegerInRaw('clip_id', $clips)->where('name', '!=', '')->get();
        foreach ($markers as $marker) {
            $ref = $spans["$marker->clip_id $marker->in_ticks $marker->out_ticks"] ?? null;
            if ($ref !== null) {
                $names[$ref] = ['name' => $marker->name];
            }
        }

        return $names;
    }

    /**
     * @param  list<int>  $takes
     * @return array<int, list<int>> clips of each, cameras first
     */
    private function parts(array $takes): array
    {
        $parts = [];
        foreach (
            DB::table('take_parts')
                ->join('clips', 'clips.id', '=', 'take_parts.clip_id')
                ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
                ->whereIntegerInRaw('take_parts.take_id', $takes)
                ->orderByRaw("clips.kind <> 'picture', devices.lane, clips.start_ticks, clips.id")
                ->get(['take_parts.take_id', 'take_parts.clip_id'])
            as $part
        ) {
            $parts[$part->take_id][] = (int) $part->clip_id;
        }

        return $parts;
    }

    /**
     * @param  list<int>  $clips
     * @return array<int, array<string, array{ulid: string, kind: string, name: string, times: int}>> by clip
     */
    private function uses(array $clips): array
    {
        $uses = [];
        foreach (
            DB::table('sequence_uses')
                ->join('sequences', 'sequences.id', '=', 'sequence_uses.sequence_id')
                ->whereIntegerInRaw('sequence_uses.clip_id', $clips)
                ->whereNull('sequences.removed_at')
                ->orderBy('sequences.name')
                ->get(['sequence_uses.clip_id', 'sequence_uses.times', 'sequences.ulid', 'sequences.kind', 'sequences.name'])
            as $use
        ) {
            $uses[$use->clip_id][$use->ulid] = [
                'ulid' => $use->ulid,
                'kind' => $use->kind,
                'name' => $use->name,
                'times' => (int) $use->times,
            ];
        }

        return $uses;
    }

    /**
     * @param  list<object>  $clips
     * @param  array<int, array<string, array{ulid: string, kind: string, name: string, times: int}>>  $uses
     * @return list<array{ulid: string, kind: string, name: string, times: int}>
     */
    private static function used(array $clips, array $uses): array
    {
        $all = [];
        foreach ($clips as $clip) {
            foreach ($uses[$clip->id] ?? [] as $ulid => $use) {
                $all[$ulid] = ['times' => ($all[$ulid]['times'] ?? 0) + $use['times']] + $use;
            }
        }

        return array_values($all);
    }

    /** @param  list<object>  $clips  what is shown of a take: the first that has a picture */
    private static function first(array $clips): ?object
    {
        foreach ($clips as $clip) {
            if ($clip->kind === 'picture') {
                return $clip;
            }
        }

        return $clips[0] ?? null;
    }

    /** @return array<string, mixed> */
    private static function row(EntryKind $kind, string $ref, ?object $clip, ?object $take, TakeFields $fields): array
    {
        return [
            'ref' => $ref,
            'what' => $kind->value,
            'clip' => $clip?->ulid,
            'name' => $clip === null ? '' : $clip->label ?? $clip->name,
            'file' => $clip?->name,
            'kind' => $clip?->kind,
            'import_kind' => $clip?->import_kind,
            'device' => $clip?->letter,
            'day' => $clip?->day === null ? null : (int) $clip->day,
            'in_ticks' => null,
            'duration_ticks' => $clip?->duration_ticks === null ? null : (int) $clip->duration_ticks,
            'start_ticks' => $clip?->start_ticks === null ? null : (int) $clip->start_ticks,
            'recorded_at' => $clip?->recorded_at,
            'channels' => $clip === null ? 0 : count(json_decode($clip->channels ?? '[]', true) ?? []),
            'sequence' => null,
            'take' =>
                $take === null
                    ? null
                    : [
                        'ulid' => $take->ulid,
                        'scene' => $take->scene,
                        'setup' => $take->setup,
                        'take' => (int) $take->take,
                        'part' => $take->part,
                        'status' => $take->status,
                        'description' => $take->description,
                        'size' => $take->size,
                        'fields' => self::fields($take, $fields) + ($take->screening === '' ? [] : ['screening' => $take->screening]),
                    ],
            'ready' => $clip?->proxied_at !== null,
            'is_away' => $clip?->away_at !== null,
            'colour' => $clip?->colour,
        ];
    }

    /** @return array<string, string> what the take's other fields say, by key; those that say nothing are left out */
    private static function fields(object $take, TakeFields $fields): array
    {
        $own = json_decode($take->own ?? '[]', true) ?? [];
        $said = [];
        foreach ($fields->all() as $key => $field) {
            $value = $field->isOwn() ? $own[substr($key, 4)] ?? null : $take->{$key} ?? null;
            $text = $field->text(is_string($value) && $key === 'absent_devices' ? json_decode($value, true) ?? [] : $value);
            if ($text !== '') {
                $said[$key] = $text;
            }
        }

        return $said;
    }

    /**
     * @param  list<object>  $clips
     * @return array<string, mixed>
     */
    private static function ofTake(?object $take, array $clips): array
    {
        $lengths = array_filter(array_column($clips, 'duration_ticks'), static fn(mixed $one): bool => $one !== null);

        return [
            'name' => $take === null ? '' : ($take->name !== '' ? $take->name : "$take->setup/$take->take$take->part"),
            'duration_ticks' => $lengths === [] ? null : (int) max($lengths),
        ];
    }

    /** @return array<string, mixed> */
    private static function ofSubclip(object $subclip): array
    {
        return [
            'name' => $subclip->name,
            'in_ticks' => $subclip->in_ticks === null ? null : (int) $subclip->in_ticks,
            ...$subclip->channels === null ? [] : ['channels' => count(json_decode($subclip->channels, true))],
            ...$subclip->in_ticks === null ? [] : ['duration_ticks' => (int) $subclip->out_ticks - (int) $subclip->in_ticks],
        ];
    }

    /** @return array<string, int> of a reference to a stretch of a clip, where that is */
    private static function stretch(string $ref): array
    {
        $span = str_contains($ref, '#') ? Reference::parse($ref)->span : null;

        return $span === null ? [] : ['in_ticks' => $span->inTicks, 'duration_ticks' => $span->outTicks - $span->inTicks];
    }

    /** @return array<string, mixed> */
    private static function angle(object $clip): array
    {
        return [
            'clip' => $clip->ulid,
            'device' => $clip->letter,
            'name' => $clip->label ?? $clip->name,
            'kind' => $clip->kind,
            'duration_ticks' => $clip->duration_ticks === null ? null : (int) $clip->duration_ticks,
            'ready' => $clip->proxied_at !== null,
        ];
    }
}
