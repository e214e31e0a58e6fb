<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Models\Bin;
use App\Models\Production;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\JoinClause;
use Illuminate\Support\Facades\DB;

/**
 * The tree of bins: one for each scene and each kind of import, which fill themselves, and the folders people made; each
 * with its {@see BinKey}.
 */
final class BinTree
{
    /** @return array{scenes: list<array<string, mixed>>, imports: list<array<string, mixed>>, own: list<array<string, mixed>>} */
    public function of(Production $production): array
    {
        $headings = DB::table('scenes')->where('production_id', $production->id)->pluck('heading', 'name');
        $scenes = DB::table('takes')
            ->leftJoin('take_parts', 'take_parts.take_id', '=', 'takes.id')
            ->where('takes.production_id', $production->id)
            ->groupBy('takes.scene')
            ->orderByRaw('MIN(takes.sort_key)')
            ->selectRaw('takes.scene, COUNT(DISTINCT take_parts.clip_id) AS clips, COUNT(DISTINCT takes.id) AS takes')
            ->get();
        $imports = DB::table('clips')
            ->where('production_id', $production->id)
            ->whereNotNull('import_kind')
            ->groupBy('import_kind')
            ->orderBy('import_kind')
            ->selectRaw('import_kind, COUNT(*) AS clips')
            ->get();
        $wild = DB::table('clips')->where('production_id', $production->id)->where('is_wild', true)->count();
        $own = Bin::query()->where('production_id', $production->id)->withCount('clips')->orderBy('name')->get();
        $parents = $own->pluck('ulid', 'id');

        return [
            'scenes' => $scenes
                ->map(
                    static fn(object $row): array => [
                        'key' => (string) BinKey::scene($row->scene),
                        'name' => 'Scene ' . $row->scene,
                        'note' => $headings[$row->scene] ?? '',
                        'clips' => (int) $row->clips,
                    ],
                )
                ->all(),
            'imports' => [
                ...$wild > 0 ? [['key' => (string) BinKey::wild(), 'name' => 'Wild and room tone', 'note' => '', 'clips' => $wild]] : [],
                ...$imports
                    ->map(
                        static fn(object $row): array => [
                            'key' => (string) BinKey::import($row->import_kind),
                            'name' => ucfirst($row->import_kind),
                            'note' => '',
                            'clips' => (int) $row->clips,
                        ],
                    )
                    ->all(),
            ],
            'own' => $own
                ->map(
                    static fn(Bin $bin): array => [
                        'key' => (string) BinKey::own($bin->ulid),
                        'name' => $bin->name,
                        'note' => '',
                        'clips' => $bin->clips_count,
                        'parent' => $bin->parent_id === null ? null : $parents[$bin->parent_id],
                    ],
                )
                ->all(),
        ];
    }

    /**
     * A page of a bin's clips in slate order.
     *
     * @param  int  $from  0-based
     * @return array{total: int, from: int, clips: list<array<string, mixed>>}|null null for a bin that is not there
     */
    public function clips(Production $production, string $key, int $from, int $limit): ?array
    {
        $bin = BinKey::parse($key);
        $query = $bin === null ? null : $this->rows($production, $bin);
        if ($bin === null || $query === null) {
            return null;
        }
        $total = (clone $query)->distinct()->count('clips.id');
        // The order first, of numbers alone, then what is shown of the page.
        $page = $query
            ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
            ->groupBy('clips.id')
            ->orderByRaw('MIN(takes.sort_key) IS NULL, MIN(takes.sort_key), MIN(devices.lane), MIN(clips.name), clips.id')
            ->offset($from)
            ->limit($limit)
            ->selectRaw('clips.id, MIN(take_parts.id) AS part')
            ->pluck('part', 'clips.id');
        $order = array_flip($page->keys()->all());
        $rows = DB::table('clips')
            ->leftJoin(
                'take_parts',
                static fn(JoinClause $join) => $join
                    ->on('take_parts.clip_id', '=', 'clips.id')
                    ->whereIntegerInRaw('take_parts.id', $page->filter()->all()),
            )
            ->leftJoin('takes', 'takes.id', '=', 'take_parts.take_id')
            ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
            ->whereIntegerInRaw('clips.id', $page->keys()->all())
            ->get([
                'clips.id',
                'clips.ulid',
                'clips.name',
                'clips.label',
                'clips.kind',
                'clips.import_kind',
                'clips.duration_ticks',
                'clips.start_ticks',
                'clips.rate_num',
                'clips.rate_den',
                'clips.drop_frame',
                'clips.proxied_at',
                'devices.letter',
                'takes.ulid as take_ulid',
                'takes.setup',
                'takes.take',
                'takes.part',
                'takes.status',
                'takes.description',
                'takes.size',
            ])
            ->sortBy(static fn(object $row): int => $order[$row->id])
            ->values();

        return [
            'total' => $total,
            'from' => $from,
            'clips' => $rows
                ->map(
                    static fn(object $row): array => [
                        'ulid' => $row->ulid,
                        'name' => $row->label ?? $row->name,
                        'file' => $row->name,
                        'kind' => $row->kind,
                        'import_kind' => $row->import_kind,
                        'device' => $row->letter,
                        'duration_ticks' => $row->duration_ticks === null ? null : (int) $row->duration_ticks,
                        'start_ticks' => $row->start_ticks === null ? null : (int) $row->start_ticks,
                        'take' =>
                            $row->setup === null
                                ? null
                                : [
                                    'ulid' => $row->take_ulid,
                                    'setup' => $row->setup,
                                    'take' => (int) $row->take,
                                    'part' => $row->part,
                                    'status' => $row->status,
                                    'description' => $row->description,
                                    'size' => $row->size,
                                ],
                        'ready' => $row->proxied_at !== null,
                    ],
                )
                ->all(),
        ];
    }

    /**
     * The clips of a bin with the takes they belong to; in a scene's bin those of the scene. One chain of keys from one end to
     * the other, so that no plan goes wrong where the database has just been filled.
     *
     * @return Builder|null null for a bin that is not there
     */
    private function rows(Production $production, BinKey $key): ?Builder
    {
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
        if ($key->kind === BinKind::Own) {
            $bin = Bin::query()->where('production_id', $production->id)->where('ulid', $key->value)->first();

            return $bin === null
                ? null
                : $query->whereIn(
                    'clips.id',
                    static fn(Builder $items) => $items->select('clip_id')->from('bin_items')->where('bin_id', $bin->id),
                );
        }

        return $key->kind === BinKind::Import ? $query->where('clips.import_kind', $key->value) : $query->where('clips.is_wild', true);
    }
}
