<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Tasks\TaskKinds;
use App\Models\ShootDay;
use App\Models\Task;

/** The kinds of task of this domain. */
final class WordsTasks
{
    public static function register(TaskKinds $kinds): void
    {
        $isOf = static fn(Task $task, ShootDay $day): bool => in_array($day->id, $task->subject['days'] ?? [], true);
        $kinds->register('words', FindWordsJob::class, 'words', $isOf);
        $kinds->register('align', AlignJob::class, 'words', $isOf);
    }
}
