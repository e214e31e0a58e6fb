<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

use App\Domain\Cards\CatalogueCardJob;
use App\Domain\Cards\CheckCardJob;
use App\Domain\Cards\CopyCardJob;
use App\Domain\Handoff\PackJob;
use App\Domain\Lineup\LineUpDayJob;
use App\Domain\Log\Notes\NotesJob;
use App\Models\Production;
use App\Models\Task;
use App\Models\User;
use App\Support\Live;

/** Writes a task down and sends it to the workers of its kind; sends an unfinished one again. */
final class StartTask
{
    /** @param  array<string, scalar|null|list<scalar>>  $subject what the job needs to find its work again */
    public function __invoke(Production $production, ?User $user, string $kind, string $title, array $subject): Task
    {
        $task = Task::query()->create([
            'production_id' => $production->id, 'user_id' => $user?->id, 'kind' => $kind,
            'title' => mb_substr($title, 0, 160), 'subject' => $subject, 'state' => 'waiting',
        ]);
        $this->send($task);
        Live::tell($production->id, 'tasks', ['task' => $task->ulid, 'kind' => $kind, 'state' => 'waiting']);

        return $task;
    }

    public function send(Task $task): void
    {
        match ($task->kind) {
            'offload' => CopyCardJob::dispatch($task->id)->onQueue('copy'),
            // Behind the offloads: a card waits in a reader, a copy does not.
            'verify' => CheckCardJob::dispatch($task->id)->onQueue('check'),
            'catalogue' => CatalogueCardJob::dispatch($task->id)->onQueue('media'),
            'lineup' => LineUpDayJob::dispatch($task->id)->onQueue('sync'),
            'notes' => NotesJob::dispatch($task->id)->onQueue('import'),
            'handoff' => PackJob::dispatch($task->id)->onQueue('export'),
            default => throw new \LogicException('No job does tasks of kind '.$task->kind),
        };
    }
}
