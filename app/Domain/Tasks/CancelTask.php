<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

use App\Models\Card;
use App\Models\Task;
use App\Support\Live;
use App\Support\Topic;

/** Asks a task to stop: at once when no worker has it, else at its next step. */
final class CancelTask
{
    public function __invoke(Task $task): void
    {
        if ($task->isOver()) {
            return;
        }
        $task->update(['cancel_asked_at' => now()]);
        // Also one that says it runs, when its worker is gone: nobody would hear the question.
        if (!TaskRun::isHeld($task->id)) {
            $message = $task->tries === 0 ? 'Stopped before it began.' : 'Stopped. What was finished is kept.';
            $task->update(['state' => 'cancelled', 'ended_at' => now(), 'alone' => null, 'now' => '', 'result' => ['message' => $message]]);
            if ($task->kind === 'offload') {
                Card::query()
                    ->whereKey($task->subject['card'])
                    ->where('state', 'copying')
                    ->update(['state' => 'stopped']);
            }
        }
        Live::tell($task->production_id, Topic::Tasks, ['task' => $task->ulid, 'kind' => $task->kind, 'state' => $task->state]);
    }
}
