<?php

declare(strict_types=1);

namespace App\Domain\Log;

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

    public function save(Model $model): void
    {
        if (! $model->exists) {
            $model->save();
            $this->rows[] = ['table' => $model->getTable(), 'id' => (int) $model->getKey(), 'before' => null, 'after' => $model->getAttributes()];

            return;
        }
        $dirty = array_keys($model->getDirty());
        if ($dirty === []) {
            return;
        }
        $before = array_intersect_key($model->getRawOriginal(), array_flip($dirty));
        $model->save();
        $this->rows[] = ['table' => $model->getTable(), 'id' => (int) $model->getKey(), 'before' => $before, 'after' => array_intersect_key($model->getAttributes(), array_flip($dirty))];
    }

    public function delete(Model $model): void
    {
        $this->rows[] = ['table' => $model->getTable(), 'id' => (int) $model->getKey(), 'before' => $model->getRawOriginal(), 'after' => null];
        $model->delete();
    }

    /** @return Change|null null when nothing changed */
    public function finish(Production $production, User $user, string $label): ?Change
    {
        if ($this->rows === []) {
            return null;
        }
        // What was taken back before this step can no longer be done again over it.
        Change::query()->where('production_id', $production->id)->where('user_id', $user->id)->whereNotNull('undone_at')->delete();

        $change = Change::query()->create([
            'production_id' => $production->id, 'user_id' => $user->id, 'label' => mb_substr($label, 0, 160), 'rows' => $this->rows,
        ]);
        DB::table('change_takes')->insert(array_map(static fn (int $take): array => ['change_id' => $change->id, 'take_id' => $take], $this->takes()));

        return $change;
    }

    /** @return list<int> the takes that the step is about: those it changed, and those that clips left or joined */
    private function takes(): array
    {
        $takes = [];
        foreach ($this->rows as $row) {
            $takes[] = $row['table'] === 'takes' ? $row['id'] : null;
            array_push($takes, $row['before']['take_id'] ?? null, $row['after']['take_id'] ?? null);
        }

        return array_values(array_unique(array_map(intval(...), array_filter($takes))));
    }
}
