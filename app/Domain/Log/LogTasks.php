<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Log\ScriptNotes\NotesJob;
use App\Domain\Tasks\TaskKinds;
use App\Models\ScriptNoteFile;
use App\Models\ShootDay;
use App\Models\Task;

/** The kinds of task of this domain. */
final class LogTasks
{
    public static function register(TaskKinds $kinds): void
    {
        $kinds->register(
            'notes',
            NotesJob::class,
            'import',
            // Reading a file changes nothing yet; bringing it in does.
            static fn(Task $task, ShootDay $day): bool => ($task->subject['apply'] ?? false) === true &&
                ScriptNoteFile::query()
                    ->whereKey($task->subject['note'] ?? 0)
                    ->where('shoot_day_id', $day->id)
                    ->exists(),
        );
    }
}
