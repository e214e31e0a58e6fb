<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Domain\Footage\Library;
use App\Models\Bin;
use App\Models\Production;
use Cartella\Core\Rules\Rule;
use Cartella\Core\Rules\Subject;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** What lies in a bin, as questions to the database: how much, in which order, and which references. */
final class BinQuery
{
    /** @var list<array{kind: EntryKind, query: Builder, isRow: bool}> */
    private array $parts;

    /** Up to so many things, how long all of them are is said with the first page. */
    private const SUMMED = 2000;

    /**
     * @param  list<array{kind: EntryKind, query: Builder, isRow: bool}>  $parts  rows of own bins have their reference
     * @param  string|null  $scene  whose bin it is
     * @param  array<mixed>|null  $rule  by which it fills itself, as it is kept
     */
    private function __construct(
        private readonly Production $production,
        array $parts,
        private readonly BinArrangement $arrangement,
        public readonly ?string $scene = null,
        public readonly ?array $rule = null,
    ) {
        $this->parts = array_map(fn(array $part): array => ['query' => $this->seen($part['kind'], $part['query'])] + $part, $parts);
    }

    /**
     * @param  array<string, Subject>|null  $subjects  what rules can ask about, where the caller has it already
     * @return self|null null for a bin that is not there
     */
    public static function of(
        Production $production,
        BinKey $key,
        BinArrangement $arrangement = new BinArrangement(),
        ?array $subjects = null,
    ): ?self {
        if ($key->kind !== BinKind::Own) {
            $query = self::filled($production, $key, $arrangement->asTakes);

            $scene = $key->kind === BinKind::Scene ? $key->value : null;

            return $query === null ? null : new self($production, [$query + ['isRow' => false]], $arrangement, $scene);
        }
        $bin = Bin::query()->where('production_id', $production->id)->where('ulid', $key->value)->first();
        if ($bin?->rule !== null) {
            $subjects ??= RuleSubjects::of($production);

            return self::ofRule($production, Rule::kept($bin->rule, $subjects), $subjects, $arrangement, $bin->rule);
        }

        return $bin === null
            ? null
            : new self(
                $production,
                array_map(
                    static fn(EntryKind $kind): array => [
                        'kind' => $kind,
                        'query' => RuleSql::of($production, $kind, withAway: true)
                            ->join('bin_items', "bin_items.{$kind->value}_id", '=', "{$kind->table()}.id")
                            ->where('bin_items.bin_id', $bin->id),
                        'isRow' => true,
                    ],
                    EntryKind::cases(),
                ),
                $arrangement,
            );
    }

    /**
     * @param  array<string, Subject>  $subjects  by key
     * @param  array<mixed>|null  $written  the rule as it is kept, where it is
     */
    public static function ofRule(
        Production $production,
        Rule $rule,
        array $subjects,
        BinArrangement $arrangement,
        ?array $written = null,
    ): self {
        if (in_array('entry', array_column($rule->conditions(), 'about'), true)) {
            $parts = (new RuleSql($production, $subjects))->entries($rule, EntryKind::cases());
        } else {
            // A rule that does not say what it is about lets takes through, and the clips that no take has: nothing is there twice.
            $clips = (new RuleSql($production, $subjects, isUntaken: true))->entries($rule, [EntryKind::Clip]);
            foreach ($clips as ['query' => $query]) {
                $query->whereNotExists(self::isTaken(...));
            }
            $parts = [...(new RuleSql($production, $subjects))->entries($rule, [EntryKind::Take]), ...$clips];
        }

        return new self(
            $production,
            array_map(static fn(array $part): array => $part + ['isRow' => false], $parts),
            $arrangement,
            rule: $written,
        );
    }

    private static function isTaken(Builder $part): Builder
    {
        return $part->from('take_parts')->whereColumn('take_parts.clip_id', 'clips.id');
    }

    /** @return array{total: int, ticks: int} how many things, and how long they are together */
    public function count(): array
    {
        $total = $ticks = 0;
        foreach ($this->parts as ['kind' => $kind, 'query' => $query]) {
            $row = (clone $query)->selectRaw('COUNT(*) AS total, SUM(' . BinOrder::length($kind) . ') AS ticks')->first();
            $total += (int) ($row->total ?? 0);
            $ticks += (int) ($row->ticks ?? 0);
        }

        return ['total' => $total, 'ticks' => $ticks];
    }

    public function total(): int
    {
        return array_sum(array_map(static fn(array $part): int => (clone $part['query'])->count(), $this->parts));
    }

    /**
     * @param  int  $from  0-based
     * @return list<array{kind: EntryKind, id: int, ref: string}> a page of it, in the order that is asked for
     */
    public function page(int $from, int $limit): array
    {
        return $this->read($from, $limit, false)['entries'];
    }

    /**
     * A page, and how much there is in all: one question, since a rule can take its time. How long all of it is takes a look at every
     * clip; of very much it is left to be asked for apart.
     *
     * @param  int  $from  0-based
     * @return array{total: int, ticks: int|null, entries: list<array{kind: EntryKind, id: int, ref: string}>}
     */
    public function counted(int $from, int $limit): array
    {
        ['total' => $total, 'entries' => $entries] = $this->read($from, $limit, true);
        if ($entries === [] && $from > 0) {
            // Behind the end there is no row that says how many there are.
            $total = $this->total();
        }

        return ['total' => $total, 'ticks' => $total > self::SUMMED ? null : $this->count()['ticks'], 'entries' => $entries];
    }

    /** @return array{total: int, entries: list<array{kind: EntryKind, id: int, ref: string}>} */
    private function read(int $from, int $limit, bool $isCounted): array
    {
        $by = BinOrder::of($this->production, $this->arrangement->order) === null ? 'slate' : $this->arrangement->order;
        $order = BinOrder::of($this->production, $by) ?? throw new \LogicException('Slates are no order.');
        $all = null;
        foreach ($this->parts as ['kind' => $kind, 'query' => $query, 'isRow' => $isRow]) {
            $one = (clone $query)->selectRaw(
                sprintf(
                    '%d AS kind, %s.id AS id, %s AS ref, %s AS place, %s AS slate, %s AS lane, %s AS called',
                    array_search($kind, EntryKind::cases(), true),
                    $kind->table(),
                    $isRow ? 'bin_items.ref' : "CONCAT('$kind->value:', {$kind->table()}.ulid)",
                    $order->sql($kind),
                    $by === 'slate' ? 'NULL' : BinOrder::slate($kind),
                    BinOrder::lane($kind),
                    BinOrder::name($kind),
                ),
            );
            $all = $all === null ? $one : $all->unionAll($one);
        }
        if ($all === null) {
            return ['total' => 0, 'entries' => []];
        }
        $down = $this->arrangement->isDown ? ' DESC' : '';
        $rows = DB::query()
            ->fromSub($all, 'entries')
            ->orderByRaw($this->ordered($by, $down))
            ->offset($from)
            ->limit($limit)
            ->selectRaw('kind, id, ref' . ($isCounted ? ', COUNT(*) OVER () AS total' : ''))
            ->get();
        $first = $rows->first();

        return [
            'total' => (int) ($first->total ?? 0),
            'entries' => $rows
                ->map(
                    static fn(object $row): array => [
                        'kind' => EntryKind::cases()[(int) $row->kind],
                        'id' => (int) $row->id,
                        'ref' => $row->ref,
                    ],
                )
                ->all(),
        ];
    }

    /** What rows are put in order by, as far as it tells any of them apart: thousands are sorted while somebody waits. */
    private function ordered(string $by, string $down): string
    {
        $kinds = array_column($this->parts, 'kind');
        if ($by === 'slate' && $kinds === [EntryKind::Take]) {
            return "place$down, id";
        }
        $slate = $by === 'slate' ? '' : "slate IS NULL, slate$down, ";

        return "place IS NULL, place$down, {$slate}kind, lane, called, id";
    }

    /** @return list<string> the references of all of it, in the order that is asked for */
    public function refs(int $limit): array
    {
        return array_column($this->page(0, $limit), 'ref');
    }

    /** @return list<int> the clips under what lies in it */
    public function clipIds(): array
    {
        $ids = [];
        foreach ($this->parts as ['kind' => $kind, 'query' => $query]) {
            $own = (clone $query)->select("{$kind->table()}.id");
            $clips = match ($kind) {
                EntryKind::Clip => $own->pluck('id'),
                EntryKind::Subclip => (clone $query)->pluck('subclips.clip_id'),
                EntryKind::Take => DB::table('take_parts')->whereIn('take_id', $own)->pluck('clip_id'),
                EntryKind::Sequence => DB::table('sequence_uses')->whereIn('sequence_id', $own)->pluck('clip_id'),
            };
            array_push($ids, ...$clips);
        }

        return array_values(array_unique(array_map(intval(...), $ids)));
    }

    /** @return list<int> the takes that lie in it, and those of which a picture or a piece of one does */
    public function takeIds(): array
    {
        $ids = [];
        $ofPictures = static fn(Builder $clips): Builder => DB::table('take_parts')
            ->join('clips', 'clips.id', '=', 'take_parts.clip_id')
            ->where('clips.kind', 'picture')
            ->whereIn('take_parts.clip_id', $clips)
            ->select('take_parts.take_id');
        foreach ($this->parts as ['kind' => $kind, 'query' => $query]) {
            $own = (clone $query)->select("{$kind->table()}.id");
            $takes = match ($kind) {
                EntryKind::Clip => $ofPictures($own)->pluck('take_id'),
                EntryKind::Subclip => $ofPictures((clone $query)->select('subclips.clip_id'))->pluck('take_id'),
                EntryKind::Take => $own->pluck('takes.id'),
                EntryKind::Sequence => $ofPictures(DB::table('sequence_uses')->whereIn('sequence_id', $own)->select('clip_id'))->pluck(
                    'take_id',
                ),
            };
            array_push($ids, ...$takes);
        }

        return array_values(array_unique(array_map(intval(...), $ids)));
    }

    /** Only of the days and devices that are asked for. */
    private function seen(EntryKind $kind, Builder $query): Builder
    {
        if ($this->arrangement->days !== []) {
            $days = DB::table('shoot_days')
                ->where('production_id', $this->production->id)
                ->whereIn('ulid', $this->arrangement->days)
                ->select('id');
            match ($kind) {
                EntryKind::Take => $query->whereIn('takes.shoot_day_id', $days),
                EntryKind::Sequence => $query->whereRaw('FALSE'),
                default => $query->whereIn('clips.shoot_day_id', $days),
            };
        }
        if ($this->arrangement->devices !== []) {
            $devices = DB::table('devices')
                ->where('production_id', $this->production->id)
                ->whereIn('letter', $this->arrangement->devices)
                ->pluck('id');
            match ($kind) {
                EntryKind::Take => $query->whereExists(
                    static fn(Builder $part) => $part
                        ->from('take_parts')
                        ->join('clips', 'clips.id', '=', 'take_parts.clip_id')
                        ->whereColumn('take_parts.take_id', 'takes.id')
                        ->whereIn('clips.device_id', $devices),
                ),
                EntryKind::Sequence => $query->whereRaw('FALSE'),
                default => $query->whereIn('clips.device_id', $devices),
            };
        }

        return $query;
    }

    /**
     * What lies in a bin that fills itself: clips, or where takes are asked for, the takes that have them.
     *
     * @return array{kind: EntryKind, query: Builder}|null null for a bin that is not there
     */
    private static function filled(Production $production, BinKey $key, bool $asTakes): ?array
    {
        $clips = RuleSql::of($production, EntryKind::Clip);
        $takes = RuleSql::of($production, EntryKind::Take);
        $id = static fn(string $table, string $column): mixed => DB::table($table)
            ->where('production_id', $production->id)
            ->where($column, $key->value)
            ->value('id');
        switch ($key->kind) {
            case BinKind::Scene:
                if ((clone $takes)->where('scene', $key->value)->doesntExist()) {
                    return null;
                }
                $takes->where('takes.scene', $key->value);
                $clips->whereIn(
                    'clips.id',
                    (clone $takes)->join('take_parts', 'take_parts.take_id', '=', 'takes.id')->select('take_parts.clip_id'),
                );
                break;
            case BinKind::Day:
            case BinKind::Device:
                $found = $key->kind === BinKind::Day ? $id('shoot_days', 'ulid') : $id('devices', 'letter');
                if ($found === null) {
                    return null;
                }
                if ($key->kind === BinKind::Device) {
                    return ['kind' => EntryKind::Clip, 'query' => $clips->where('clips.device_id', $found)];
                }
                $clips->where('clips.shoot_day_id', $found);
                $takes->where('takes.shoot_day_id', $found);
                break;
            case BinKind::Import:
                return ['kind' => EntryKind::Clip, 'query' => $clips->where('clips.import_kind', $key->value)];
            case BinKind::Library:
                return [
                    'kind' => EntryKind::Clip,
                    'query' => Library::clips($production)->where('clips.import_kind', $key->value),
                ];
            case BinKind::Wild:
                return ['kind' => EntryKind::Clip, 'query' => $clips->where('clips.is_wild', true)];
            case BinKind::Sound:
                $clips
                    ->where('clips.kind', 'sound')
                    ->where('clips.is_wild', false)
                    ->whereRaw("(clips.import_kind = 'production sound' OR (clips.import_kind IS NULL AND clips.device_id IS NOT NULL))");

                return ['kind' => EntryKind::Clip, 'query' => $clips];
            case BinKind::NoSlate:
                $clips->whereNull('clips.import_kind')->where('clips.is_wild', false)->whereNotExists(self::isTaken(...));

                return ['kind' => EntryKind::Clip, 'query' => $clips];
            default:
        }

        return $asTakes ? ['kind' => EntryKind::Take, 'query' => $takes] : ['kind' => EntryKind::Clip, 'query' => $clips];
    }
}
