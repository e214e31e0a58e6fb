<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

use App\Models\ShootDay;
use App\Models\Task;
use Illuminate\Support\Collection;

/** The unfinished tasks that a day depends on: what is only missing because it has not come in yet is no open point. */
final class DayWork
{
    public function __construct(private readonly TaskKinds $kinds) {}

    /** @return Collection<int, Task> */
    public function of(ShootDay $day): Collection
    {
        $open = Task::query()
            ->where('production_id', $day->production_id)
            ->whereNull('ended_at')
            ->whereIn('kind', $this->kinds->ofDays())
            ->get();

        return $open->filter(fn(Task $task): bool => $this->kinds->isOf($task, $day))->values();
    }

    /** @return list<string> of the tasks that run or wait */
    public function kinds(ShootDay $day): array
    {
        return $this->of($day)->pluck('kind')->unique()->values()->all();
    }
}
