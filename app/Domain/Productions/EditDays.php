<?php

declare(strict_types=1);

namespace App\Domain\Productions;

use App\Domain\Undo\ChangeLog;
use App\Domain\Undo\Dependents;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** Corrects a shoot day, adds one, and removes one that nothing belongs to; each an undoable step. */
final class EditDays
{
    public function add(Production $production, User $user, string $date, string $unit): ShootDay
    {
        return DB::transaction(function () use ($production, $user, $date, $unit): ShootDay {
            Production::query()->whereKey($production->id)->lockForUpdate()->first();
            $day = new ShootDay([
                'production_id' => $production->id,
                'number' => (int) $production->days()->max('number') + 1,
                'date' => $date,
                'unit' => $unit,
            ]);
            $log = new ChangeLog();
            $log->save($day);
            $log->finish($production, $user, "Add day $day->number");
            Live::tell($production->id, Topic::Settings);

            return $day;
        });
    }

    /**
     * @param  array{number?: int, date?: string, unit?: string}  $values
     *
     * @throws Problem if the number is another day's
     */
    public function change(Production $production, User $user, ShootDay $day, array $values): ShootDay
    {
        return DB::transaction(function () use ($production, $user, $day, $values): ShootDay {
            Production::query()->whereKey($production->id)->lockForUpdate()->first();
            if (isset($values['number']) && $production->days()->where('number', $values['number'])->whereKeyNot($day->id)->exists()) {
                throw Problem::refused('day.taken', "There is a day {$values['number']} already.", 'Give that one another number first.');
            }
            $log = new ChangeLog();
            $log->save($day->fill($values));
            $log->finish($production, $user, "Correct day $day->number");
            Live::tell($production->id, Topic::Settings);

            return $day;
        });
    }

    /** @throws Problem if anything belongs to it, or it is the only one */
    public function remove(Production $production, User $user, ShootDay $day): void
    {
        DB::transaction(function () use ($production, $user, $day): void {
            Production::query()->whereKey($production->id)->lockForUpdate()->first();
            foreach (Dependents::of('shoot_days', $day->id) as $one) {
                throw Problem::refused(
                    'day.not_empty',
                    "Day $day->number is not empty.",
                    sprintf('Only a day without cards, clips and takes can be removed (%s).', strtr($one['table'], '_', ' ')),
                );
            }
            if ($production->days()->count() === 1) {
                throw Problem::refused('day.only', 'A production has at least one shoot day.', 'Correct its date instead.');
            }
            $log = new ChangeLog();
            $log->delete($day);
            $log->finish($production, $user, "Remove day $day->number");
            Live::tell($production->id, Topic::Settings);
        });
    }
}
