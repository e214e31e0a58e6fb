<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Tasks\TaskFailed;
use App\Models\Card;
use App\Support\Live;
use App\Support\Topic;

/** A card whose offload was given up no longer says that it is being copied. */
final class FailedCard
{
    public function handle(TaskFailed $event): void
    {
        $task = $event->task;
        if ($task->kind !== 'offload') {
            return;
        }
        $fault = [['path' => '', 'reason' => (string) ($task->result['message'] ?? 'It stopped with an error.')]];
        if (
            Card::query()
                ->whereKey($task->subject['card'])
                ->where('state', 'copying')
                ->update(['state' => 'fault', 'faults' => json_encode($fault)]) > 0
        ) {
            Live::tell($task->production_id, Topic::Cards);
        }
    }
}
