<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Models\Bin;
use App\Models\Production;
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
        $own = Bin::query()->where('production_id', $production->id)->withCount('items')->orderBy('name')->get();
        $parents = $own->pluck('ulid', 'id');

        return [
            'scenes' => $scenes
                ->map(
                    static fn(object $row): array => [
                        'key' => (string) BinKey::scene($row->scene),
                        'name' => 'Scene ' . $row->scene,
                        'note' => $headings[$row->scene] ?? '',
                        'items' => (int) $row->clips,
                        'parent' => null,
                    ],
                )
                ->all(),
            'imports' => [
                ...$wild > 0
                    ? [['key' => (string) BinKey::wild(), 'name' => 'Wild and room tone', 'note' => '', 'items' => $wild, 'parent' => null]]
                    : [],
                ...$imports
                    ->map(
                        static fn(object $row): array => [
                            'key' => (string) BinKey::import($row->import_kind),
                            'name' => ucfirst($row->import_kind),
                            'note' => '',
                            'items' => (int) $row->clips,
                            'parent' => null,
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
                        'items' => $bin->items_count,
                        'parent' => $bin->parent_id === null ? null : $parents[$bin->parent_id],
                    ],
                )
                ->all(),
        ];
    }
}
