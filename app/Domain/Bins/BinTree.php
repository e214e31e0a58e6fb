<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Models\Bin;
use App\Models\Production;
use Illuminate\Database\Query\Builder;
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
        $query = DB::table('clips')->where('clips.production_id', $production->id);
        $bin = BinKey::parse($key);
        if ($bin === null || !$this->narrow($query, $production, $bin)) {
            return null;
        }
        $total = (clone $query)->count();
        $rows = $query
            ->leftJoinSub(self::first($production, $bin), 'part', 'part.clip_id', '=', 'clips.id')
            ->leftJoin('takes', 'takes.id', '=', 'part.take_id')
            ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
            ->orderByRaw('takes.sort_key IS NULL')
            ->orderBy('takes.sort_key')
            ->orderBy('devices.lane')
            ->orderBy('clips.name')
            ->orderBy('clips.id')
            ->offset($from)
            ->limit($limit)
            ->get([
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
            ]);

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

    private function narrow(Builder $query, Production $production, BinKey $key): bool
    {
        switch ($key->kind) {
            case BinKind::Scene:
                $query->whereIn('clips.id', self::ofScene($production, $key->value)->select('take_parts.clip_id'));

                return DB::table('takes')->where('production_id', $production->id)->where('scene', $key->value)->exists();
            case BinKind::Import:
                $query->where('clips.import_kind', $key->value);

                return true;
            case BinKind::Wild:
                $query->where('clips.is_wild', true);

                return true;
            case BinKind::Own:
                $bin = Bin::query()->where('production_id', $production->id)->where('ulid', $key->value)->first();
                $query->whereIn(
                    'clips.id',
                    static fn(Builder $items) => $items->select('clip_id')->from('bin_items')->where('bin_id', $bin?->id),
                );

                return $bin !== null;
        }
    }

    private static function ofScene(Production $production, string $scene): Builder
    {
        return DB::table('take_parts')
            ->join('takes', 'takes.id', '=', 'take_parts.take_id')
            ->where('takes.production_id', $production->id)
            ->where('takes.scene', $scene);
    }

    /** The take under which a clip stands in a bin: the first that it belongs to, in a scene's bin the first of that scene. */
    private static function first(Production $production, BinKey $key): Builder
    {
        $parts = $key->kind === BinKind::Scene ? self::ofScene($production, $key->value) : DB::table('take_parts');
        $first = $parts->groupBy('take_parts.clip_id')->selectRaw('MIN(take_parts.id) AS id');

        return DB::table('take_parts')
            ->joinSub($first, 'first', 'first.id', '=', 'take_parts.id')
            ->select('take_parts.clip_id', 'take_parts.take_id');
    }
}
