<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Tasks\TaskKinds;
use App\Models\ShootDay;
use App\Models\Task;

/** The kinds of task of this domain. */
final class ScreeningTasks
{
    public static function register(TaskKinds $kinds): void
    {
        $kinds->register(
            'reel',
            ExportJob::class,
            'export',
            static fn(Task $task, ShootDay $day): bool => (int) ($task->subject['day'] ?? 0) === $day->id,
        );
    }
}
