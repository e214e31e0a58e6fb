<?php

declare(strict_types=1);

namespace App\Domain\Undo;

use App\Models\Change;
use App\Models\Production;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;

/**
 * Takes back a person's own last step, or does it again, without touching what others did since.
 *
 * Every row is judged by itself: what is as the step left it goes back, what somebody changed since stays and is told. A
 * row that the step made goes only when nothing of others hangs on it. A step of which nothing can be taken back is passed
 * over with a word, so that those before it stay in reach.
 */
final class UndoChange
{
    /** The changes of others that are looked through for whose a row is. */
    private const LOOK_THROUGH = 400;

    /** At most so many of what stayed are told one by one. */
    private const TOLD = 20;

    public function __construct(private readonly Undoables $tables) {}

    /** @throws Problem if nothing of the step can be taken back; it is passed over then */
    public function undo(Production $production, User $user): ?Undone
    {
        do {
            $change = $this->own($production, $user)->whereNull('undone_at')->whereNull('skipped_at')->latest('id')->first();
            if ($change === null) {
                return null;
            }
            $this->tables->check($change);
        } while (($done = $this->write($change, true)) === null);

        return $done;
    }

    /** @throws Problem if nothing of the step can be done again; it is passed over then */
    public function redo(Production $production, User $user): ?Undone
    {
        do {
            $change = $this->own($production, $user)->whereNotNull('undone_at')->whereNull('skipped_at')->oldest('id')->first();
        } while ($change !== null && ($done = $this->write($change, false)) === null);

        return $done ?? null;
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Change> */
    private function own(Production $production, User $user)
    {
        return Change::query()->where('production_id', $production->id)->where('user_id', $user->id);
    }

    /** @return Undone|null null when another request of the same person took the step meanwhile */
    private function write(Change $change, bool $back): ?Undone
    {
        $stayed = $topics = [];
        $written = $count = 0;
        $isOurs = DB::transaction(function () use ($change, $back, &$stayed, &$topics, &$written, &$count): bool {
            // Two requests at once wait here for each other, and the second finds the step gone.
            $now = Change::query()->lockForUpdate()->findOrFail($change->id);
            if (($now->undone_at !== null) === $back || $now->skipped_at !== null) {
                return false;
            }
            $why = $this->tables->whyNot($change);
            if ($why !== null) {
                $stayed[] = $why;
                $count++;
                $change->update(['skipped_at' => now()]);

                return true;
            }
            $kept = $this->keptRows($change, $back, $stayed, $count);
            foreach ($change->steps($back) as $row) {
                [$from, $to] = $back ? [$row['after'], $row['before']] : [$row['before'], $row['after']];
                if (isset($kept[$row['table'] . '.' . $row['id']])) {
                    continue;
                }
                if (self::pointsAt($row['table'], $from, $to, $kept)) {
                    $count++;

                    continue;
                }
                $done =
                    $this->tables->replayOf($row['table']) === null
                        ? $this->row($change, $row, $from, $to, $stayed, $count)
                        : $this->replay($change, $row, $back, $stayed, $count);
                if ($done) {
                    $written++;
                    $topic = $this->tables->of($row['table'])['topic'];
                    $topics[$topic->value] = $topic;
                }
            }
            if ($written > 0 || $count === 0) {
                $change->update(['undone_at' => $back ? now() : null]);
            } else {
                $change->update(['skipped_at' => now()]);
            }

            return true;
        });
        if (!$isOurs) {
            return null;
        }
        if ($written === 0 && $count > 0) {
            throw Problem::cannotUndo($change->label, $stayed[0] ?? 'somebody changed the same thing since', $back);
        }
        $this->tables->follow($change);
        foreach ($topics as $topic) {
            Live::tell($change->production_id, $topic);
        }

        return new Undone($change, $count, array_slice(array_values(array_unique($stayed)), 0, self::TOLD), array_keys($topics));
    }

    /**
     * The rows that the step made and that have to stay: changed since, or with something of others on them.
     *
     * @param  list<string>  $stayed
     * @return array<string, true> by table and id
     */
    private function keptRows(Change $change, bool $back, array &$stayed, int &$count): array
    {
        $made = $own = [];
        foreach ($change->steps($back) as $row) {
            if (!$this->tables->knows($row['table'])) {
                throw Problem::cannotUndo($change->label, 'it touched something that is never written back', $back);
            }
            $own[$row['table'] . '.' . $row['id']] = true;
            [$from, $to] = $back ? [$row['after'], $row['before']] : [$row['before'], $row['after']];
            if ($to === null && $from !== null && $this->tables->replayOf($row['table']) === null) {
                $made[] = ['table' => $row['table'], 'id' => $row['id'], 'from' => $from];
            }
        }
        $kept = [];
        foreach ($made as $row) {
            $why = $this->whyKept($change, $row['table'], $row['id'], $row['from'], $own);
            if ($why !== null) {
                $kept[$row['table'] . '.' . $row['id']] = true;
                $stayed[] = $why;
                $count++;
            }
        }

        return $kept;
    }

    /**
     * @param  array<string, mixed>  $from
     * @param  array<string, true>  $own  rows of the same step
     */
    private function whyKept(Change $change, string $table, int $id, array $from, array $own): ?string
    {
        $now = (array) DB::table($table)->where('id', $id)->lockForUpdate()->first();
        if ($now === []) {
            return null; // it is gone already
        }
        $what = self::name($now) ?? $this->tables->of($table)['called'];
        // Columns that later migrations added are not in the step, and do not count.
        $since = RowChange::of($this->asLeft($change, $table, $id, $from), [], $now, ['byKey' => []] + $this->tables->of($table));
        if ($since->stayed !== []) {
            return sprintf('%s stays: %s changed it since', $what, $this->who($change, $table, $id) ?? 'somebody');
        }
        $hanging = $this->foreign($table, $id, $own, $change->user_id);
        if ($hanging !== null) {
            $who =
                $hanging['user'] === null
                    ? $this->who($change, $hanging['table'], $hanging['id'])
                    : User::query()->whereKey($hanging['user'])->value('name');

            return sprintf(
                '%s stays: %s of %s hangs on it',
                $what,
                $this->tables->knows($hanging['table']) ? $this->tables->of($hanging['table'])['called'] : 'something',
                $who ?? 'somebody',
            );
        }

        return null;
    }

    /**
     * What a made row was when the step ended: later rows of the same step may have changed it again.
     *
     * @param  array<string, mixed>  $from
     * @return array<string, mixed>
     */
    private function asLeft(Change $change, string $table, int $id, array $from): array
    {
        foreach ($change->stepsOf($table, $id) as $row) {
            $from = ($row['after'] ?? []) + $from;
        }

        return $from;
    }

    /**
     * The first row that hangs on one and is not of the step itself.
     *
     * @param  array<string, true>  $own
     * @return array{table: string, id: int, user: int|null}|null
     */
    private function foreign(string $table, int $id, array $own, int $user): ?array
    {
        foreach (Dependents::of($table, $id) as $one) {
            if (!isset($own[$one['table'] . '.' . $one['id']]) && $this->tables->holds($one['table'], $one['user'], $user)) {
                return $one;
            }
        }

        return null;
    }

    /**
     * Whether a row would lose, or get, its link to one that has to stay.
     *
     * @param  array<string, mixed>|null  $from
     * @param  array<string, mixed>|null  $to
     * @param  array<string, true>  $kept
     */
    private static function pointsAt(string $table, ?array $from, ?array $to, array $kept): bool
    {
        foreach (Dependents::links($table) as $column => $other) {
            if (isset($from[$column]) && $from[$column] !== ($to[$column] ?? null) && isset($kept[$other . '.' . $from[$column]])) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  array{table: string, id: int}  $row
     * @param  array<string, mixed>|null  $from  what must be there now
     * @param  array<string, mixed>|null  $to
     * @param  list<string>  $stayed
     */
    private function row(Change $change, array $row, ?array $from, ?array $to, array &$stayed, int &$count): bool
    {
        $rules = $this->tables->of($row['table']);
        $table = DB::table($row['table'])->where('id', $row['id']);
        try {
            if ($to === null) {
                return $table->delete() > 0;
            }
            if ($from === null) {
                DB::table($row['table'])->insert($to);

                return true;
            }
            $now = (array) $table->lockForUpdate()->first();
            $go = $now === [] ? null : RowChange::of($from, $to, $now, $rules);
            if ($go === null || $go->stayed !== []) {
                $count++;
                $stayed[] =
                    $now === []
                        ? sprintf('%s is gone', $rules['called'])
                        : sprintf(
                            '%s of %s stays: %s changed it since',
                            self::words($go->stayed),
                            self::name($now) ?? $rules['called'],
                            $this->who($change, $row['table'], $row['id'], $go->stayed) ?? 'somebody',
                        );
            }
            if ($go === null || $go->write === []) {
                return false;
            }
            DB::table($row['table'])->where('id', $row['id'])->update($go->write);

            return true;
        } catch (QueryException $refusal) {
            if (!str_starts_with((string) $refusal->getCode(), '23')) {
                throw $refusal;
            }
            // The statement alone is taken back by the database; the others of the step stand.
            $count++;
            $stayed[] = sprintf('%s stays: what it belongs to, or its place, is not free any more', self::name($to) ?? $rules['called']);

            return false;
        }
    }

    /**
     * @param  array{table: string, id: int, before: array<string, mixed>|null, after: array<string, mixed>|null}  $row
     * @param  list<string>  $stayed
     */
    private function replay(Change $change, array $row, bool $back, array &$stayed, int &$count): bool
    {
        $why = $this->tables->replayOf($row['table'])?->turn($change, $row['id'], $row['after'] ?? [], $back);
        if ($why !== null) {
            $stayed[] = $why;
            $count++;
        }

        return $why === null;
    }

    /**
     * Who of the others last changed a row since the step.
     *
     * @param  list<string>  $columns
     */
    private function who(Change $change, string $table, int $id, array $columns = []): ?string
    {
        $later = Change::query()
            ->where('production_id', $change->production_id)
            ->where('id', '>', $change->id)
            ->where('user_id', '!=', $change->user_id)
            ->whereNull('undone_at')
            ->with('user')
            ->latest('id')
            ->limit(self::LOOK_THROUGH)
            ->lazy(50);
        foreach ($later as $one) {
            foreach ($one->stepsOf($table, $id) as $row) {
                if ($columns === [] || array_intersect($columns, array_keys(($row['after'] ?? []) + ($row['before'] ?? []))) !== []) {
                    return $one->user?->name;
                }
            }
        }

        return null;
    }

    /** @param  list<string>  $columns */
    private static function words(array $columns): string
    {
        return ucfirst(
            implode(
                ', ',
                array_map(
                    static fn(string $column): string => strtr((string) preg_replace('/\Ais_|_(ticks|id|at)\z/', '', $column), '_', ' '),
                    array_slice($columns, 0, 3),
                ),
            ),
        );
    }

    /** @param  array<string, mixed>  $row */
    private static function name(array $row): ?string
    {
        return match (true) {
            isset($row['setup'], $row['take']) => $row['setup'] . '/' . $row['take'] . ($row['part'] ?? ''),
            isset($row['roll']) => (string) $row['roll'],
            isset($row['letter']) => 'device ' . $row['letter'],
            isset($row['label']) && $row['label'] !== '' => '"' . $row['label'] . '"',
            isset($row['name']) && $row['name'] !== '' => '"' . $row['name'] . '"',
            default => null,
        };
    }
}
