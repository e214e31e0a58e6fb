<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Tasks\TaskKinds;
use App\Models\ShootDay;
use App\Models\Task;

/** The kinds of task of this domain. */
final class LineupTasks
{
    public static function register(TaskKinds $kinds): void
    {
        $kinds->register(
            'lineup',
            LineUpDayJob::class,
            'sync',
            static fn(Task $task, ShootDay $day): bool => (int) ($task->subject['day'] ?? 0) === $day->id,
        );
        $kinds->register('points', PointsJob::class, 'import', isQuiet: true);
    }
}
