<?php

declare(strict_types=1);

namespace App\Domain\Undo;

use App\Models\Change;
use App\Models\Production;
use App\Models\User;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Facades\DB;

/**
 * Collects what one step of one person does to rows, so that the step can be taken back whole.
 *
 * Save, create and delete through it, then {@see self::finish}. Rows are kept as the database holds them.
 */
final class ChangeLog
{
    /** @var list<array{table: string, id: int, before: array<string, mixed>|null, after: array<string, mixed>|null}> */
    private array $rows = [];

    /** A long step's own record; its rows are kept one by one, so that an import of a whole shoot costs no more memory. */
    private ?Change $long = null;

    /** @var array<int, true> by id */
    private array $takeIds = [];

    /** @var array<int, true> by id */
    private array $clipIds = [];

    /**
     * A step that is written down piece by piece with {@see self::flush}, and goes on where an earlier run left it.
     *
     * @param  Change|null  $begun  by the run before
     */
    public static function long(Production $production, User $user, string $label, ?Change $begun): self
    {
        $log = new self();
        $log->long = $begun ?? $log->begin($production, $user, $label, []);

        return $log;
    }

    /**
     * A step of a task that somebody started and that replaces nothing: it is in the histories, and neither undo nor redo of what the
     * person did meanwhile comes upon it.
     */
    public static function beside(Production $production, User $user, string $label): self
    {
        $log = new self();
        $log->long = self::create($production, $user, $label, [], ['skipped_at' => now()]);

        return $log;
    }

    public function save(Model $model): void
    {
        if (!$model->exists) {
            $model->save();
            $this->add($model, null, $model->getAttributes());

            return;
        }
        $dirty = array_keys($model->getDirty());
        if ($dirty === []) {
            return;
        }
        $before = array_intersect_key($model->getRawOriginal(), array_flip($dirty));
        $model->save();
        $this->add($model, $before, array_intersect_key($model->getAttributes(), array_flip($dirty)));
    }

    /**
     * Saves many rows of one table that exist already, in a few statements.
     *
     * @param  list<Model>  $models
     */
    public function saveAll(array $models): void
    {
        $byColumns = [];
        foreach ($models as $model) {
            if ($model->isDirty()) {
                $model->setUpdatedAt($model->freshTimestamp());
                $byColumns[implode(' ', array_keys($model->getDirty()))][] = $model;
            }
        }
        foreach ($byColumns as $columns => $alike) {
            foreach (array_chunk($alike, 250) as $chunk) {
                DB::table($chunk[0]->getTable())->upsert(
                    array_map(static fn(Model $model): array => $model->getAttributes(), $chunk),
                    ['id'],
                    explode(' ', $columns),
                );
            }
            foreach ($alike as $model) {
                $changed = array_flip(explode(' ', $columns));
                $this->add(
                    $model,
                    array_intersect_key($model->getRawOriginal(), $changed),
                    array_intersect_key($model->getAttributes(), $changed),
                );
                $model->syncOriginal();
            }
        }
    }

    /**
     * Saves many new rows of one table, in a few statements.
     *
     * @param  list<Model>  $models
     */
    public function createAll(array $models): void
    {
        foreach (array_chunk($models, 500) as $chunk) {
            foreach ($chunk as $model) {
                $model->setCreatedAt($model->freshTimestamp())->setUpdatedAt($model->freshTimestamp());
            }
            DB::table($chunk[0]->getTable())->insert(array_map(static fn(Model $model): array => $model->getAttributes(), $chunk));
            // The rows of one statement have numbers that follow each other.
            $id = (int) DB::getPdo()->lastInsertId();
            foreach ($chunk as $model) {
                $model->setAttribute('id', $id++);
                $this->add($model, null, $model->getAttributes());
            }
        }
    }

    /**
     * Deletes many rows of one table, in a few statements.
     *
     * @param  iterable<Model>  $models
     */
    public function deleteAll(iterable $models): void
    {
        $ids = [];
        foreach ($models as $model) {
            $this->add($model, $model->getRawOriginal(), null);
            $ids[$model->getTable()][] = (int) $model->getKey();
        }
        foreach ($ids as $table => $own) {
            foreach (array_chunk($own, 1000) as $chunk) {
                DB::table($table)->whereIntegerInRaw('id', $chunk)->delete();
            }
        }
    }

    public function delete(Model $model): void
    {
        $this->add($model, $model->getRawOriginal(), null);
        $model->delete();
    }

    /** @return Change|null null when nothing changed */
    public function finish(Production $production, User $user, string $label): ?Change
    {
        if ($this->rows === [] && $this->long === null) {
            return null;
        }
        if ($this->long !== null) {
            $this->flush();
            if (DB::table('change_rows')->where('change_id', $this->long->id)->doesntExist()) {
                $this->long->delete();

                return null;
            }
            $this->long->update(['label' => mb_substr($label, 0, 160)]);

            return $this->long;
        }
        $change = $this->begin($production, $user, $label, $this->rows);
        $this->name($change);

        return $change;
    }

    /** Writes down what a long step has done so far, in the caller's transaction; gives its record's id. */
    public function flush(): int
    {
        $change = $this->long ?? throw new \LogicException('A short step is written down once, when it is finished.');
        $text = static fn(?array $values): ?string => $values === null
            ? null
            : json_encode($values, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
        foreach (array_chunk($this->rows, 250) as $rows) {
            DB::table('change_rows')->insert(
                array_map(
                    static fn(array $row): array => [
                        'change_id' => $change->id,
                        'table' => $row['table'],
                        'row_id' => $row['id'],
                        'before' => $text($row['before']),
                        'after' => $text($row['after']),
                    ],
                    $rows,
                ),
            );
        }
        $this->name($change);
        $this->rows = $this->takeIds = $this->clipIds = [];

        return $change->id;
    }

    /** Which takes and which clips' words the step is about, for their histories. */
    private function name(Change $change): void
    {
        foreach (array_chunk(array_keys($this->takeIds), 1000) as $takes) {
            DB::table('change_takes')->insertOrIgnore(
                array_map(static fn(int $take): array => ['change_id' => $change->id, 'take_id' => $take], $takes),
            );
        }
        foreach (array_chunk(array_keys($this->clipIds), 1000) as $clips) {
            DB::table('change_clips')->insertOrIgnore(
                array_map(static fn(int $clip): array => ['change_id' => $change->id, 'clip_id' => $clip], $clips),
            );
        }
    }

    /** @param  list<array{table: string, id: int, before: array<string, mixed>|null, after: array<string, mixed>|null}>  $rows */
    private function begin(Production $production, User $user, string $label, array $rows): Change
    {
        // What was taken back before this step can no longer be done again over it.
        Change::query()->where('production_id', $production->id)->where('user_id', $user->id)->whereNotNull('undone_at')->delete();

        return self::create($production, $user, $label, $rows);
    }

    /**
     * @param  list<array{table: string, id: int, before: array<string, mixed>|null, after: array<string, mixed>|null}>  $rows
     * @param  array<string, mixed>  $more
     */
    private static function create(Production $production, User $user, string $label, array $rows, array $more = []): Change
    {
        return Change::query()->create(
            $more + [
                'production_id' => $production->id,
                'user_id' => $user->id,
                'label' => mb_substr($label, 0, 160),
                'rows' => $rows,
            ],
        );
    }

    /**
     * @param  array<string, mixed>|null  $before
     * @param  array<string, mixed>|null  $after
     */
    private function add(Model $model, ?array $before, ?array $after): void
    {
        $id = (int) $model->getKey();
        $this->rows[] = ['table' => $model->getTable(), 'id' => $id, 'before' => $before, 'after' => $after];
        $clip = app(Undoables::class)->of($model->getTable())['clip'];
        if ($clip !== null) {
            $this->clipIds[(int) $model->getAttribute($clip)] = true;
        }
        foreach (app(Undoables::class)->takes($model->getTable(), $id, $before ?? [], $after ?? []) as $take) {
            $this->takeIds[$take] = true;
        }
    }
}
