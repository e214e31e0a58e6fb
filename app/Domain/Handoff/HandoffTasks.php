<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Handoff\Back\PullJob;
use App\Domain\Tasks\TaskKinds;
use App\Models\Handoff;
use App\Models\ShootDay;
use App\Models\Task;

/** The kinds of task of this domain. */
final class HandoffTasks
{
    public static function register(TaskKinds $kinds): void
    {
        $kinds->register(
            'handoff',
            PackJob::class,
            'export',
            static fn(Task $task, ShootDay $day): bool => in_array(
                $day->ulid,
                Handoff::query()->find($task->subject['handoff'] ?? 0)->chosen['days'] ?? [],
                true,
            ),
        );
        $kinds->register('accept', AcceptJob::class, 'export');
        $kinds->register('pull', PullJob::class, 'export');
    }
}
