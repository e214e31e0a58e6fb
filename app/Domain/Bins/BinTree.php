<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Domain\Footage\Away;
use App\Domain\Footage\Library;
use App\Models\Production;
use App\Models\ShootDay;
use Cartella\Core\Media\MediaNames;
use Illuminate\Support\Facades\DB;

/**
 * The tree of bins: groups that fill themselves, as the production's template has them, and the bins that people made; each
 * with its {@see BinKey}. Whatever the template leaves out, *All footage* has every clip.
 */
final class BinTree
{
    /** The groups of a template, in the order in which a new production has them, and what people call them. */
    public const GROUPS = ['scenes' => 'Scenes', 'kinds' => 'Kinds', 'days' => 'Days', 'devices' => 'Devices', 'library' => 'Library'];

    /** What a new production shows. */
    private const USUAL = ['scenes', 'kinds', 'library'];

    /** @return array{groups: list<array{key: string, name: string, bins: list<array<string, mixed>>}>, own: list<array<string, mixed>>} */
    public function of(Production $production): array
    {
        $groups = [];
        foreach (self::groups($production) as $group) {
            $shared = $group === 'library' ? $this->library($production) : null;
            if ($shared === []) {
                // Nobody shares anything.
                continue;
            }
            $groups[] = [
                'key' => $group,
                'name' => self::GROUPS[$group],
                'bins' => match ($group) {
                    'scenes' => $this->scenes($production),
                    'kinds' => $this->kinds($production),
                    'days' => $this->days($production),
                    'library' => $shared,
                    default => $this->devices($production),
                },
            ];
        }

        return ['groups' => $groups, 'own' => $this->own($production)];
    }

    /** @return list<string> the groups that a production shows, in its order */
    public static function groups(Production $production): array
    {
        return array_values(array_intersect($production->bin_groups ?? self::USUAL, array_keys(self::GROUPS)));
    }

    /**
     * How much lies in the bins that are counted apart from the tree, since each is a question about all footage: rule bins, and those
     * of kinds that take a look at every clip.
     *
     * @return array<string, int> by key
     */
    public function counts(Production $production): array
    {
        $rules = DB::table('bins')->where('production_id', $production->id)->whereNotNull('rule')->pluck('ulid')->all();
        $keys = [...array_map(BinKey::own(...), $rules), BinKey::all(), BinKey::sound(), BinKey::noSlate()];
        $subjects = $rules === [] ? null : RuleSubjects::of($production);
        $counts = [];
        foreach ($keys as $key) {
            $counts[(string) $key] = BinQuery::of($production, $key, subjects: $subjects)?->total() ?? 0;
        }

        return $counts;
    }

    /**
     * What can be handed off beside whole days: every kind and scene, whatever the tree shows of them, and people's own bins.
     *
     * @return array{groups: list<array{key: string, name: string, bins: list<array<string, mixed>>}>, own: list<array<string, mixed>>}
     */
    public function forHandoff(Production $production): array
    {
        return [
            'groups' => [
                ['key' => 'kinds', 'name' => self::GROUPS['kinds'], 'bins' => $this->kinds($production)],
                ['key' => 'scenes', 'name' => self::GROUPS['scenes'], 'bins' => $this->scenes($production)],
            ],
            'own' => $this->own($production),
        ];
    }

    /** @return list<array<string, mixed>> */
    private function scenes(Production $production): array
    {
        $headings = DB::table('scenes')->where('production_id', $production->id)->pluck('heading', 'name');

        return DB::table('takes')
            ->where('production_id', $production->id)
            ->groupBy('scene')
            ->orderByRaw('MIN(sort_key)')
            ->selectRaw('scene, COUNT(*) AS takes')
            ->get()
            ->map(
                static fn(object $row): array => self::entry(
                    BinKey::scene($row->scene),
                    'Scene ' . $row->scene,
                    (int) $row->takes,
                    $headings[$row->scene] ?? '',
                ),
            )
            ->all();
    }

    /** @return list<array<string, mixed>> */
    private function days(Production $production): array
    {
        $counts = Away::hide(DB::table('clips'), $production)
            ->where('production_id', $production->id)
            ->groupBy('shoot_day_id')
            ->selectRaw('shoot_day_id, COUNT(*) AS clips')
            ->pluck('clips', 'shoot_day_id');

        return ShootDay::query()
            ->where('production_id', $production->id)
            ->orderBy('number')
            ->get()
            ->map(
                static fn(ShootDay $day): array => self::entry(
                    BinKey::day($day->ulid),
                    "Day $day->number",
                    (int) ($counts[$day->id] ?? 0),
                    $day->date->format('D j M') . ($day->unit === '' ? '' : " · $day->unit"),
                ),
            )
            ->all();
    }

    /** @return list<array<string, mixed>> */
    private function devices(Production $production): array
    {
        $counts = Away::hide(DB::table('clips'), $production)
            ->where('production_id', $production->id)
            ->groupBy('device_id')
            ->selectRaw('device_id, COUNT(*) AS clips')
            ->pluck('clips', 'device_id');

        return DB::table('devices')
            ->where('production_id', $production->id)
            ->orderBy('lane')
            ->get(['id', 'letter', 'kind', 'note'])
            ->map(
                static fn(object $one): array => self::entry(
                    BinKey::device($one->letter),
                    "Device $one->letter",
                    (int) ($counts[$one->id] ?? 0),
                    $one->note,
                ),
            )
            ->all();
    }

    /** @return list<array<string, mixed>> */
    private function kinds(Production $production): array
    {
        $imports = Away::hide(DB::table('clips'), $production)
            ->where('production_id', $production->id)
            ->whereNotNull('import_kind')
            ->groupBy('import_kind')
            ->selectRaw('import_kind, COUNT(*) AS clips')
            ->pluck('clips', 'import_kind');
        $kinds = [
            self::entry(BinKey::all(), 'All footage', null),
            self::entry(BinKey::sound(), 'Production sound', null),
            self::entry(
                BinKey::wild(),
                'Wild and room tone',
                Away::hide(DB::table('clips'), $production)->where('production_id', $production->id)->where('is_wild', true)->count(),
            ),
        ];
        foreach (MediaNames::IMPORTS as $kind) {
            if ($kind !== 'production sound') {
                $kinds[] = self::entry(BinKey::import($kind), ucfirst($kind), (int) ($imports[$kind] ?? 0));
            }
        }
        $kinds[] = self::entry(BinKey::noSlate(), 'No slate yet', null);

        return array_values(array_filter($kinds, static fn(array $one): bool => $one['items'] !== 0));
    }

    /** @return list<array<string, mixed>> */
    private function library(Production $production): array
    {
        $counts = Library::clips($production)
            ->groupBy('clips.import_kind')
            ->selectRaw('clips.import_kind, COUNT(*) AS clips')
            ->pluck('clips', 'import_kind');

        return array_values(
            array_map(
                static fn(string $kind): array => self::entry(BinKey::library($kind), ucfirst($kind), (int) $counts[$kind]),
                array_filter(MediaNames::IMPORTS, static fn(string $kind): bool => isset($counts[$kind])),
            ),
        );
    }

    /** @return list<array<string, mixed>> in the order of the tree, each behind the bin that it lies in */
    private function own(Production $production): array
    {
        $bins = DB::table('bins')
            ->where('production_id', $production->id)
            ->orderBy('place')
            ->orderBy('name')
            ->get(['id', 'ulid', 'parent_id', 'name', 'colour', DB::raw('rule IS NOT NULL AS is_rule')]);
        $items = static fn() => DB::table('bin_items')
            ->whereIntegerInRaw('bin_id', $bins->pluck('id')->all())
            ->groupBy('bin_id');
        $counts = $items()->selectRaw('bin_id, COUNT(*) AS items')->pluck('items', 'bin_id')->all();
        // What somebody removed can come back, to its bins as well.
        $removed = $items()
            ->join('sequences', 'sequences.id', '=', 'bin_items.sequence_id')
            ->whereNotNull('sequences.removed_at')
            ->selectRaw('bin_id, COUNT(*) AS items')
            ->pluck('items', 'bin_id');
        foreach ($removed as $bin => $gone) {
            $counts[$bin] -= (int) $gone;
        }
        $ulids = $bins->pluck('ulid', 'id');
        $below = $bins->groupBy(static fn(object $bin): int => (int) $bin->parent_id);
        $list = [];
        $add = static function (int $parent, int $depth) use (&$add, &$list, $below, $counts, $ulids): void {
            foreach ($below[$parent] ?? [] as $bin) {
                $list[] =
                    [
                        'colour' => $bin->colour,
                        'is_rule' => (bool) $bin->is_rule,
                        'depth' => $depth,
                        'parent' => $bin->parent_id === null ? null : $ulids[$bin->parent_id],
                    ] + self::entry(BinKey::own($bin->ulid), $bin->name, $bin->is_rule ? null : (int) ($counts[$bin->id] ?? 0));
                $add((int) $bin->id, $depth + 1);
            }
        };
        $add(0, 0);
        // Two people can have taken back steps so that bins lie in each other; nothing is hidden by that.
        $listed = array_flip(array_column($list, 'key'));
        foreach ($bins as $bin) {
            if (!isset($listed[$bin->ulid])) {
                $list[] =
                    [
                        'colour' => $bin->colour,
                        'is_rule' => (bool) $bin->is_rule,
                    ] + self::entry(BinKey::own($bin->ulid), $bin->name, $bin->is_rule ? null : (int) ($counts[$bin->id] ?? 0));
            }
        }

        return $list;
    }

    /**
     * @param  int|null  $items  null where that is counted apart
     * @return array<string, mixed>
     */
    private static function entry(BinKey $key, string $name, ?int $items, string $note = ''): array
    {
        return [
            'key' => (string) $key,
            'name' => $name,
            'note' => $note,
            'items' => $items,
            'parent' => null,
            'depth' => 0,
            'colour' => null,
            'is_rule' => false,
        ];
    }
}
