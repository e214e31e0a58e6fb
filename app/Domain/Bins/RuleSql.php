<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Domain\Footage\Away;
use App\Domain\Footage\TakeLengths;
use App\Models\Production;
use App\Models\SequenceKind;
use Cartella\Core\Rules\Condition;
use Cartella\Core\Rules\Group;
use Cartella\Core\Rules\Joining;
use Cartella\Core\Rules\Rule;
use Cartella\Core\Rules\Subject;
use Cartella\Core\Rules\SubjectType;
use Cartella\Core\Rules\Test;
use Cartella\Core\Time\Ticks;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/**
 * A rule as questions to the database, one for each kind of thing that can lie in a bin; what each test means is said by
 * {@see Condition::matches}, and a test holds the two together.
 *
 * What is said of a condition is SQL with its bindings, or true or false where that is known without asking.
 *
 * @phpstan-type Said array{0: string, 1: list<string|int|float>}|bool
 */
final class RuleSql
{
    /** @var array<string, array<int, string>> what values of subjects are in the tables: ids by ULID or letter */
    private array $ids = [];

    /** @var array<int, true> rule bins that are being asked, by id */
    private array $within = [];

    /**
     * @param  array<string, Subject>  $subjects  by key
     * @param  bool  $isUntaken  whether clips are asked about that no take has, of which much is known without asking
     */
    public function __construct(
        private readonly Production $production,
        private readonly array $subjects,
        private readonly bool $isUntaken = false,
    ) {}

    /**
     * @param  list<EntryKind>  $kinds  of which to look
     * @return list<array{kind: EntryKind, query: Builder}> what passes; kinds of which nothing can are left out
     */
    public function entries(Rule $rule, array $kinds): array
    {
        $parts = [];
        foreach ($kinds as $kind) {
            $said = $this->group($rule->group, $kind);
            if ($said === false) {
                continue;
            }
            $query = self::of($this->production, $kind);
            if ($said !== true) {
                $query->whereRaw($said[0], $said[1]);
            }
            $parts[] = ['kind' => $kind, 'query' => $query];
        }

        return $parts;
    }

    /**
     * All things of a kind in a production, from the table that is called as they are.
     *
     * @param  bool  $withAway  also clips that were taken away, where somebody put them
     */
    public static function of(Production $production, EntryKind $kind, bool $withAway = false): Builder
    {
        $query = DB::table($kind->table());
        if ($kind === EntryKind::Clip && !$withAway) {
            Away::hide($query, $production);
        }

        return match ($kind) {
            EntryKind::Subclip => $query->join('clips', 'clips.id', '=', 'subclips.clip_id')->where('clips.production_id', $production->id),
            EntryKind::Sequence => $query->where('sequences.production_id', $production->id)->whereNull('sequences.removed_at'),
            default => $query->where("{$kind->table()}.production_id", $production->id),
        };
    }

    /** @return Said */
    private function group(Group $group, EntryKind $of): array|bool
    {
        if ($group->parts === []) {
            return true;
        }
        $isAll = $group->joining === Joining::All;
        $sql = $bindings = [];
        foreach ($group->parts as $part) {
            $said = $part instanceof Group ? $this->group($part, $of) : $this->condition($part, $of);
            // One that is known decides at once, or says nothing.
            if ($said === !$isAll) {
                return $group->joining === Joining::None ? false : !$isAll;
            }
            if (is_array($said)) {
                $sql[] = $said[0];
                array_push($bindings, ...$said[1]);
            }
        }
        if ($sql === []) {
            return $isAll || $group->joining === Joining::None;
        }
        $all = '(' . implode($isAll ? ' AND ' : ' OR ', $sql) . ')';

        return [$group->joining === Joining::None ? "NOT COALESCE($all, FALSE)" : $all, $bindings];
    }

    /** @return Said */
    private function condition(Condition $condition, EntryKind $of): array|bool
    {
        $subject = $this->subjects[$condition->about] ?? null;
        if ($subject === null) {
            return false;
        }
        $isDenied = $condition->test->denies();
        if ($subject->key === 'entry') {
            return in_array($of->value, $condition->values, true) !== $isDenied;
        }
        if ($subject->key === 'rule') {
            $said = $this->inRules($condition->values, $of);

            return match (true) {
                !$isDenied => $said,
                is_bool($said) => !$said,
                default => ["NOT COALESCE($said[0], FALSE)", $said[1]],
            };
        }
        $sql = $bindings = [];
        foreach ($this->sources($subject, $of) as [$column, $from]) {
            $said = $this->passes($subject, $condition->test->affirmed(), $condition->values, $column);
            if ($said === false) {
                continue;
            }
            // Each thing is asked for in a list that the database makes once, not once a row.
            $sql[] = match (true) {
                $from !== null => sprintf('%s %s (%s AND %s)', $this->key($subject, $of), $isDenied ? 'NOT IN' : 'IN', $from, $said[0]),
                $isDenied => "NOT COALESCE($said[0], FALSE)",
                default => $said[0],
            };
            array_push($bindings, ...$said[1]);
        }

        return $sql === [] ? $isDenied : ['(' . implode($isDenied ? ' AND ' : ' OR ', $sql) . ')', $bindings];
    }

    /** What is looked for in the lists of a subject: the thing itself for bins, else its take or clip. */
    private function key(Subject $subject, EntryKind $of): string
    {
        return match (true) {
            $subject->key === 'bin' => "{$of->table()}.id",
            $of === EntryKind::Take => 'takes.id',
            default => 'clips.id',
        };
    }

    /**
     * Where the facts of a subject stand: a column, and for those of other tables the list that a thing is looked for in.
     *
     * @return list<array{string, string|null}>
     */
    private function sources(Subject $subject, EntryKind $of): array
    {
        $ours = $this->production->id;
        $parts = "SELECT p.take_id FROM take_parts AS p JOIN clips AS c ON c.id = p.clip_id WHERE c.production_id = $ours";
        $ofClip = static fn(string $column): array => match ($of) {
            EntryKind::Clip, EntryKind::Subclip => [[str_replace('@', 'clips', $column), null]],
            EntryKind::Take => [[str_replace('@', 'c', $column), $parts]],
            EntryKind::Sequence => [],
        };
        // Of rows that belong to a clip: markers and places.
        $belowClip = static fn(string $table, string $alias, string $column): array => match ($of) {
            EntryKind::Clip, EntryKind::Subclip => [[$column, "SELECT $alias.clip_id FROM $table AS $alias WHERE TRUE"]],
            EntryKind::Take => [
                [$column, "SELECT p.take_id FROM $table AS $alias JOIN take_parts AS p ON p.clip_id = $alias.clip_id WHERE TRUE"],
            ],
            EntryKind::Sequence => [],
        };
        $uses = static function (string $which) use ($of, $ours): array {
            $shown = 'sequences AS s JOIN sequence_uses AS u ON u.sequence_id = s.id';
            $where = "WHERE s.production_id = $ours AND s.removed_at IS NULL AND s.kind $which";

            return match ($of) {
                EntryKind::Sequence => [],
                EntryKind::Take => [['s.id', "SELECT p.take_id FROM $shown JOIN take_parts AS p ON p.clip_id = u.clip_id $where"]],
                default => [['s.id', "SELECT u.clip_id FROM $shown $where"]],
            };
        };

        return match ($subject->key) {
            'kind' => $ofClip('@.kind'),
            'import' => $ofClip('@.import_kind'),
            'colour' => $ofClip('@.colour'),
            'device' => $ofClip('@.device_id'),
            'day', 'date' => $of === EntryKind::Take ? [['takes.shoot_day_id', null]] : $ofClip('@.shoot_day_id'),
            'sound' => $ofClip('(COALESCE(JSON_LENGTH(@.channels), 0) > 0)'),
            'fault' => $ofClip('(COALESCE(JSON_LENGTH(@.problems), 0) > 0)'),
            'length' => match ($of) {
                EntryKind::Clip => [['clips.duration_ticks', null]],
                EntryKind::Subclip => [['COALESCE(subclips.out_ticks, clips.duration_ticks) - COALESCE(subclips.in_ticks, 0)', null]],
                EntryKind::Take => [[str_replace(['take_parts.', 'clips.'], ['p.', 'c.'], TakeLengths::TICKS), $parts]],
                EntryKind::Sequence => [['sequences.running_ticks', null]],
            },
            'named' => match ($of) {
                EntryKind::Clip => [['clips.name', null], ['clips.label', null]],
                EntryKind::Take => [['takes.name', null], ["CONCAT(takes.setup, '/', takes.take, takes.part)", null]],
                default => [["{$of->table()}.name", null]],
            },
            'slated' => match ($of) {
                EntryKind::Take => [['1', null]],
                EntryKind::Sequence => [],
                default => $this->isUntaken ? [] : [['1', 'SELECT p.clip_id FROM take_parts AS p WHERE TRUE']],
            },
            'placed' => $belowClip('placements', 'l', 'l.is_sure'),
            'marker' => $belowClip('markers', 'm', "CONCAT('· ', m.name, ' ', m.note)"),
            'spoken' => $this->spoken($of),
            'cut' => $uses("<> '" . SequenceKind::Reel->value . "'"),
            'reel' => $uses("= '" . SequenceKind::Reel->value . "'"),
            'bin' => [
                [
                    'b.bin_id',
                    "SELECT b.{$of->value}_id FROM bins JOIN bin_items AS b ON b.bin_id = bins.id " .
                    "WHERE bins.production_id = $ours AND b.{$of->value}_id IS NOT NULL",
                ],
            ],
            default => $this->ofTake($subject->key, $of),
        };
    }

    /**
     * What is said: in a recording itself, and for what ran with it in the recordings of its take, as far as they belong to it.
     *
     * @return list<array{string, string|null}>
     */
    private function spoken(EntryKind $of): array
    {
        $within =
            'passages AS w JOIN take_parts AS p ON p.clip_id = w.clip_id' .
            ' AND (p.in_ticks IS NULL OR (w.start_ticks >= p.in_ticks AND w.start_ticks < p.out_ticks))';
        $where = "WHERE w.production_id = {$this->production->id}";

        return match ($of) {
            EntryKind::Sequence => [],
            EntryKind::Take => [['w.said', "SELECT p.take_id FROM $within $where"]],
            default => [
                ['w.said', "SELECT w.clip_id FROM passages AS w $where"],
                ...$this->isUntaken
                    ? []
                    : [['w.said', "SELECT o.clip_id FROM $within JOIN take_parts AS o ON o.take_id = p.take_id $where"]],
            ],
        };
    }

    /** @return list<array{string, string|null}> */
    private function ofTake(string $key, EntryKind $of): array
    {
        // Names of own fields are small letters and digits.
        $column = str_starts_with($key, 'own:')
            ? sprintf("JSON_VALUE(@.own, '$.\"%s\"') COLLATE utf8mb4_unicode_ci", substr($key, 4))
            : "@.`$key`";

        return match (true) {
            $of === EntryKind::Take => [[str_replace('@', 'takes', $column), null]],
            $of === EntryKind::Sequence, $this->isUntaken => [],
            default => [
                [
                    str_replace('@', 't', $column),
                    'SELECT p.clip_id FROM takes AS t JOIN take_parts AS p ON p.take_id = t.id ' .
                    "WHERE t.production_id = {$this->production->id}",
                ],
            ],
        };
    }

    /**
     * @param  list<string>  $values
     * @return array{0: string, 1: list<string|int|float>}|false
     */
    private function passes(Subject $subject, Test $test, array $values, string $column): array|false
    {
        $ids = match ($subject->key) {
            'day', 'device', 'cut', 'reel', 'bin' => $test === Test::Is ? $this->ids($subject->key, $values) : null,
            'date' => array_merge(...array_map(fn(string $value): array => $this->days($test, $value), $values)),
            default => null,
        };
        if ($ids !== null) {
            return $ids === [] ? false : [sprintf('%s IN (%s)', $column, implode(',', $ids)), []];
        }
        $like = static fn(string $before): array => [
            '(' . implode(' OR ', array_fill(0, count($values), "$column LIKE ?")) . ')',
            array_map(static fn(string $value): string => $before . addcslashes($value, '%_\\') . '%', $values),
        ];
        $isNumber = in_array($subject->type, [SubjectType::Number, SubjectType::Length], true);
        // A number that a production added is kept as it was written.
        $isWritten = str_starts_with($subject->key, 'own:');
        $value = $isWritten ? "CAST($column AS DECIMAL(30,6))" : $column;
        $number = static fn(string $than): array => [
            ($isWritten ? "$column REGEXP '^-?[0-9]' AND " : '') .
            '(' .
            implode(' OR ', array_fill(0, count($values), "$value $than ?")) .
            ')',
            array_map(
                static fn(string $value): string|int => $subject->type === SubjectType::Length
                    ? (int) round((float) $value * Ticks::PER_SECOND)
                    : $value,
                $values,
            ),
        ];

        return match ($test) {
            Test::Yes => ["$column = 1", []],
            Test::Filled => match (true) {
                $subject->type === SubjectType::Holder => ["$column IS NOT NULL", []],
                $isNumber && !$isWritten => ["$column IS NOT NULL", []],
                default => ["TRIM($column) <> ''", []],
            },
            Test::Contains => $like('%'),
            Test::Starts => $like(''),
            Test::Least => $number('>='),
            Test::Most => $number('<='),
            default => $isNumber
                ? $number('=')
                : [sprintf('%s IN (%s)', $column, implode(',', array_fill(0, count($values), '?'))), $values],
        };
    }

    /**
     * @param  list<string>  $values  ULIDs, or letters of devices
     * @return list<int>
     */
    private function ids(string $about, array $values): array
    {
        [$table, $name] = match ($about) {
            'day' => ['shoot_days', 'ulid'],
            'device' => ['devices', 'letter'],
            'bin' => ['bins', 'ulid'],
            default => ['sequences', 'ulid'],
        };
        $this->ids[$table] ??= DB::table($table)->where('production_id', $this->production->id)->pluck($name, 'id')->all();

        return array_keys(array_intersect($this->ids[$table], $values));
    }

    /** @return list<int> days of a production that a test of dates lets through */
    private function days(Test $test, string $value): array
    {
        $than = [Test::Least->value => '>=', Test::Most->value => '<='][$test->value] ?? '=';

        return DB::table('shoot_days')
            ->where('production_id', $this->production->id)
            ->whereDate('date', $than, $value)
            ->pluck('id')
            ->map(intval(...))
            ->all();
    }

    /**
     * What the rule of one of some bins lets through.
     *
     * @param  list<string>  $values  ULIDs
     * @return Said
     */
    private function inRules(array $values, EntryKind $of): array|bool
    {
        $sql = $bindings = [];
        $bins = DB::table('bins')
            ->where('production_id', $this->production->id)
            ->whereIn('ulid', $values)
            ->whereNotNull('rule')
            ->pluck('rule', 'id');
        foreach ($bins as $id => $rule) {
            // Loops are refused when a rule is kept; one that came about all the same holds nothing.
            if (isset($this->within[$id])) {
                continue;
            }
            $this->within[$id] = true;
            $said = $this->group(Rule::kept(json_decode($rule, true), $this->subjects)->group, $of);
            unset($this->within[$id]);
            if ($said === true) {
                return true;
            }
            if (is_array($said)) {
                $sql[] = $said[0];
                array_push($bindings, ...$said[1]);
            }
        }

        return $sql === [] ? false : ['(' . implode(' OR ', $sql) . ')', $bindings];
    }
}
