<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

use App\Models\Production;
use App\Models\Task;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Queue\RedisQueue;
use Illuminate\Queue\SyncQueue;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;

/** Writes a task down and sends it to the workers of its kind, both in one transaction; sends an unfinished one again. */
final class StartTask
{
    public function __construct(private readonly TaskKinds $kinds) {}

    /**
     * @param  array<string, scalar|null|list<scalar>>  $subject  what the job needs to find its work again
     * @param  string|null  $alone  what no second unfinished task may work on, such as `copies.12`
     *
     * @throws Problem if another unfinished task works on it
     */
    public function __invoke(Production $production, ?User $user, string $kind, string $title, array $subject, ?string $alone = null): Task
    {
        try {
            return DB::transaction(function () use ($production, $user, $kind, $title, $subject, $alone): Task {
                $task = Task::query()->create([
                    'production_id' => $production->id,
                    'user_id' => $user?->id,
                    'kind' => $kind,
                    'title' => mb_substr($title, 0, 160),
                    'subject' => $subject + ($alone === null ? [] : ['alone' => $alone]),
                    'state' => 'waiting',
                    'alone' => $alone,
                ]);
                $this->send($task);
                Live::tell($production->id, Topic::Tasks, ['task' => $task->ulid, 'kind' => $kind, 'state' => 'waiting']);

                return $task;
            });
        } catch (UniqueConstraintViolationException $twice) {
            $other = $alone === null ? null : Task::query()->where('alone', $alone)->first();
            if ($other === null) {
                throw $twice;
            }
            throw self::busy($other);
        }
    }

    /** A refusal that says what is in the way. */
    public static function busy(Task $other): Problem
    {
        return Problem::refused('task.busy', "\"$other->title\" is not done yet.", 'Wait until it is done, or stop it.', [
            'task' => $other->ulid,
        ]);
    }

    /**
     * Sends an ended task's work once more, from the task that failed or was stopped.
     *
     * @throws Problem if it is not over, or something else works on the same
     */
    public function again(Task $task, User $user): Task
    {
        if (!in_array($task->state, ['failed', 'cancelled'], true)) {
            throw Problem::refused('task.state', "\"$task->title\" has not failed.", 'Nothing to do.');
        }

        return $this($task->production, $user, $task->kind, $task->title, $task->subject, $task->subject['alone'] ?? null);
    }

    /** @param  int  $seconds  from now; the queue that runs at once in tests sends nothing later */
    public function send(Task $task, int $seconds = 0): void
    {
        ['job' => $job, 'queue' => $queue] = $this->kinds->of($task->kind);
        if ($seconds > 0 && Queue::connection() instanceof SyncQueue) {
            return;
        }
        $id = $seconds > 0 ? Queue::laterOn($queue, $seconds, new $job($task->id)) : Queue::pushOn($queue, new $job($task->id));
        Task::query()
            ->whereKey($task->id)
            ->update(['job' => is_scalar($id) && $id !== 0 ? (string) $id : null]);
    }

    /** Whether a job of the task waits in its queue; one that a dead worker took does not count, and is removed. */
    public function isQueued(Task $task): bool
    {
        $queues = Queue::connection();
        if ($queues instanceof RedisQueue) {
            // It cannot be asked for one job: while anything waits there, the task's is taken to be among it. What a worker took
            // does not count: a living one holds the task's lock.
            $queue = $this->kinds->of($task->kind)['queue'];

            return $queues->pendingSize($queue) + $queues->delayedSize($queue) > 0;
        }
        $job =
            $task->job === null
                ? null
                : DB::table('jobs')
                    ->where('id', $task->job)
                    ->first(['id', 'reserved_at']);
        if (
            $job !== null &&
            $job->reserved_at !== null &&
            !TaskRun::isHeld($task->id) &&
            // Either way: a clock that is set back must not make it wait.
            abs(now()->getTimestamp() - $job->reserved_at) > 5
        ) {
            DB::table('jobs')->where('id', $job->id)->delete();

            return false;
        }

        return $job !== null;
    }
}
