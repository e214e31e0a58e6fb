<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Tasks\TaskKinds;
use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\Task;

/** The kinds of task of this domain. */
final class FootageTasks
{
    public static function register(TaskKinds $kinds): void
    {
        $kinds->register(
            'media',
            RemakeMediaJob::class,
            'media',
            static fn(Task $task, ShootDay $day): bool => Clip::query()
                ->whereKey($task->subject['clip'] ?? 0)
                ->where('shoot_day_id', $day->id)
                ->exists(),
        );
    }
}
