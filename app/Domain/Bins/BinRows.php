<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Models\Bin;
use App\Models\Production;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** What lies in a bin, page by page in slate order. A bin that fills itself holds clips, one that people made any reference. */
final class BinRows
{
    /** The columns of what a row shows. */
    private const SHOWN = [
        'clips.ulid',
        'clips.name',
        'clips.label',
        'clips.kind',
        'clips.import_kind',
        'clips.duration_ticks',
        'clips.start_ticks',
        'clips.proxied_at',
        'devices.letter',
        'takes.ulid as take_ulid',
        'takes.setup',
        'takes.take',
        'takes.part',
        'takes.status',
        'takes.description',
        'takes.size',
    ];

    /**
     * @param  int  $from  0-based
     * @return array{total: int, from: int, rows: list<array<string, mixed>>}|null null for a bin that is not there
     */
    public function page(Production $production, string $key, int $from, int $limit): ?array
    {
        $bin = BinKey::parse($key);
        if ($bin === null) {
            return null;
        }
        if ($bin->kind === BinKind::Own) {
            $own = self::own($production, $bin);

            return $own === null ? null : $this->ownPage($own, $from, $limit);
        }
        $query = $this->clips($production, $bin);

        return $query === null ? null : $this->clipPage($query, $from, $limit);
    }

    /** @return list<int> the clips that are behind what lies in a bin; none for a bin that is not there */
    public function clipIds(Production $production, string $key): array
    {
        $bin = BinKey::parse($key);
        $own = $bin?->kind === BinKind::Own ? self::own($production, $bin) : null;
        if ($own !== null) {
            $items = static fn(string $column): Builder => DB::table('bin_items')
                ->where('bin_id', $own->id)
                ->whereNotNull($column)
                ->select($column);
            $ids = [
                ...$items('clip_id')->pluck('clip_id'),
                ...DB::table('subclips')->whereIn('id', $items('subclip_id'))->pluck('clip_id'),
                ...DB::table('take_parts')->whereIn('take_id', $items('take_id'))->pluck('clip_id'),
                ...DB::table('sequence_uses')->whereIn('sequence_id', $items('sequence_id'))->pluck('clip_id'),
            ];
        } else {
            $ids = ($bin === null ? null : $this->clips($production, $bin))?->distinct()->pluck('clips.id')->all() ?? [];
        }

        return array_values(array_unique(array_map(intval(...), $ids)));
    }

    private static function own(Production $production, BinKey $key): ?Bin
    {
        return Bin::query()->where('production_id', $production->id)->where('ulid', $key->value)->first();
    }

    /** @return array{total: int, from: int, rows: list<array<string, mixed>>} */
    private function clipPage(Builder $query, int $from, int $limit): array
    {
        $total = (clone $query)->distinct()->count('clips.id');
        // The order first, of numbers alone, then what is shown of the page.
        $page = $query
            ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
            ->groupBy('clips.id')
            ->orderByRaw('MIN(takes.sort_key) IS NULL, MIN(takes.sort_key), MIN(devices.lane), MIN(clips.name), clips.id')
            ->offset($from)
            ->limit($limit)
            ->selectRaw('clips.id, MIN(takes.id) AS of_take')
            ->get();
        $shown = $this->shown($page->pluck('id')->all(), $page->pluck('of_take')->filter()->all());
        $rows = [];
        foreach ($page as $one) {
            $clip = $shown['clips'][$one->id];
            $rows[] = self::row('clip', "clip:$clip->ulid", $clip, $shown['takes'][$one->of_take] ?? null);
        }

        return ['total' => $total, 'from' => $from, 'rows' => $rows];
    }

    /** @return array{total: int, from: int, rows: list<array<string, mixed>>} */
    private function ownPage(Bin $bin, int $from, int $limit): array
    {
        $query = DB::table('bin_items')
            ->leftJoin('subclips', 'subclips.id', '=', 'bin_items.subclip_id')
            ->leftJoin('sequences', 'sequences.id', '=', 'bin_items.sequence_id')
            ->where('bin_items.bin_id', $bin->id)
            // What somebody removed can come back, to its bins as well.
            ->whereNull('sequences.removed_at');
        $total = (clone $query)->count();
        $page = $query
            ->leftJoin('clips', 'clips.id', '=', DB::raw('COALESCE(bin_items.clip_id, subclips.clip_id)'))
            ->leftJoin('take_parts', 'take_parts.clip_id', '=', 'clips.id')
            ->leftJoin('takes', 'takes.id', '=', DB::raw('COALESCE(bin_items.take_id, take_parts.take_id)'))
            ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
            ->groupBy('bin_items.id')
            ->orderByRaw(
                'MIN(takes.sort_key) IS NULL, MIN(takes.sort_key), MIN(devices.lane), ' .
                    'MIN(COALESCE(subclips.name, clips.name, sequences.name)), bin_items.id',
            )
            ->offset($from)
            ->limit($limit)
            ->selectRaw(
                'MIN(bin_items.ref) AS ref, MIN(bin_items.take_id) AS whole, MIN(clips.id) AS of_clip, MIN(takes.id) AS of_take, ' .
                    'MIN(subclips.name) AS subclip, MIN(subclips.in_ticks) AS in_ticks, MIN(subclips.out_ticks) AS out_ticks, ' .
                    'MIN(sequences.name) AS sequence, MIN(sequences.running_ticks) AS running_ticks',
            )
            ->get();
        $first = $this->firstPictures($page->pluck('whole')->filter()->all());
        $shown = $this->shown([...$page->pluck('of_clip')->filter()->all(), ...$first], $page->pluck('of_take')->filter()->all());
        $rows = [];
        foreach ($page as $one) {
            $take = $shown['takes'][$one->of_take] ?? null;
            $clip = $shown['clips'][$one->of_clip ?? ($first[$one->whole] ?? 0)] ?? null;
            $rows[] = match (true) {
                $one->sequence !== null => [
                    'name' => $one->sequence,
                    'duration_ticks' => (int) $one->running_ticks,
                ] + self::row('sequence', $one->ref, null, null),
                $one->whole !== null => ['name' => self::slate($take)] + self::row('take', $one->ref, $clip, $take),
                $one->subclip !== null => [
                    'name' => $one->subclip,
                    'in_ticks' => $one->in_ticks === null ? null : (int) $one->in_ticks,
                    ...$one->in_ticks === null ? [] : ['duration_ticks' => (int) $one->out_ticks - (int) $one->in_ticks],
                ] + self::row('subclip', $one->ref, $clip, $take),
                default => self::row('clip', $one->ref, $clip, $take),
            };
        }

        return ['total' => $total, 'from' => $from, 'rows' => $rows];
    }

    /**
     * @param  list<int>  $takes
     * @return array<int, int> the first camera's picture of each, by take
     */
    private function firstPictures(array $takes): array
    {
        return DB::table('take_parts')
            ->join('clips', 'clips.id', '=', 'take_parts.clip_id')
            ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
            ->whereIntegerInRaw('take_parts.take_id', $takes)
            ->where('clips.kind', 'picture')
            ->orderByRaw('devices.lane DESC, clips.start_ticks DESC')
            ->pluck('clips.id', 'take_parts.take_id')
            ->map(intval(...))
            ->all();
    }

    /**
     * @param  list<int>  $clips
     * @param  list<int>  $takes
     * @return array{clips: array<int, object>, takes: array<int, object>} by id
     */
    private function shown(array $clips, array $takes): array
    {
        $ofClips = array_filter(self::SHOWN, static fn(string $column): bool => !str_starts_with($column, 'takes.'));
        $ofTakes = array_filter(self::SHOWN, static fn(string $column): bool => str_starts_with($column, 'takes.'));

        return [
            'clips' => DB::table('clips')
                ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
                ->whereIntegerInRaw('clips.id', $clips)
                ->get(['clips.id', ...$ofClips])
                ->keyBy('id')
                ->all(),
            'takes' => DB::table('takes')
                ->whereIntegerInRaw('id', $takes)
                ->get(['takes.id', ...$ofTakes])
                ->keyBy('id')
                ->all(),
        ];
    }

    /**
     * @param  'clip'|'take'|'subclip'|'sequence'  $what
     * @return array<string, mixed>
     */
    private static function row(string $what, string $ref, ?object $clip, ?object $take): array
    {
        return [
            'ref' => $ref,
            'what' => $what,
            'clip' => $clip?->ulid,
            'name' => $clip === null ? '' : $clip->label ?? $clip->name,
            'kind' => $clip?->kind,
            'import_kind' => $clip?->import_kind,
            'device' => $clip?->letter,
            'in_ticks' => null,
            'duration_ticks' => $clip?->duration_ticks === null ? null : (int) $clip->duration_ticks,
            'start_ticks' => $clip?->start_ticks === null ? null : (int) $clip->start_ticks,
            'take' =>
                $take === null
                    ? null
                    : [
                        'ulid' => $take->take_ulid,
                        'setup' => $take->setup,
                        'take' => (int) $take->take,
                        'part' => $take->part,
                        'status' => $take->status,
                        'description' => $take->description,
                        'size' => $take->size,
                    ],
            'ready' => $clip?->proxied_at !== null,
        ];
    }

    private static function slate(?object $take): string
    {
        return $take === null ? '' : "$take->setup/$take->take$take->part";
    }

    /**
     * The clips of a bin that fills itself, with the takes they belong to; in a scene's bin those of the scene. One chain of keys from
     * one end to the other, so that no plan goes wrong where the database has just been filled.
     *
     * @return Builder|null null for a bin that is not there
     */
    private function clips(Production $production, BinKey $key): ?Builder
    {
        if ($key->kind === BinKind::Own) {
            return null;
        }
        if ($key->kind === BinKind::Scene) {
            $isThere = DB::table('takes')->where('production_id', $production->id)->where('scene', $key->value)->exists();

            return $isThere
                ? DB::table('takes')
                    ->join('take_parts', 'take_parts.take_id', '=', 'takes.id')
                    ->join('clips', 'clips.id', '=', 'take_parts.clip_id')
                    ->where('takes.production_id', $production->id)
                    ->where('takes.scene', $key->value)
                : null;
        }
        $query = DB::table('clips')
            ->leftJoin('take_parts', 'take_parts.clip_id', '=', 'clips.id')
            ->leftJoin('takes', 'takes.id', '=', 'take_parts.take_id')
            ->where('clips.production_id', $production->id);

        return $key->kind === BinKind::Import ? $query->where('clips.import_kind', $key->value) : $query->where('clips.is_wild', true);
    }
}
