<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

use App\Models\Task;
use App\Support\Live;
use App\Support\Problem;
use Cartella\Core\CartellaException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;

/**
 * The run of one task by one worker: holds the task's lock in the database, writes its progress a few times a second,
 * notices a cancel, and ends it with a plain sentence whatever happens.
 *
 * The lock belongs to the worker's connection, so it goes by itself when the worker is killed; {@see RecoverTasks}
 * then finds the task and starts it again.
 */
final class TaskRun
{
    private const WRITE_EVERY_NS = 250_000_000;

    private int $writtenAt = 0;

    private readonly int $startedAt;

    private int $startBytes = 0;

    private function __construct(public readonly Task $task)
    {
        $this->startedAt = hrtime(true);
    }

    /**
     * Runs the work unless the task is over or another worker holds it.
     *
     * @param  callable(self): array<string, mixed>  $work  its answer is kept as the task's result
     */
    public static function of(int $taskId, callable $work): void
    {
        if (! self::lock($taskId)) {
            return;
        }
        try {
            $task = Task::query()->find($taskId);
            if ($task === null || $task->isOver()) {
                return;
            }
            $task->update(['state' => 'running', 'started_at' => $task->started_at ?? now()]);
            (new self($task))->through($work);
        } finally {
            rescue(static fn () => DB::select('DO RELEASE_LOCK(?)', [self::lockName($taskId)]), report: false);
        }
    }

    public static function isHeld(int $taskId): bool
    {
        return (int) (DB::selectOne('SELECT IS_FREE_LOCK(?) AS free', [self::lockName($taskId)])->free ?? 1) === 0;
    }

    private static function lock(int $taskId): bool
    {
        return (int) (DB::selectOne('SELECT GET_LOCK(?, 0) AS got', [self::lockName($taskId)])->got ?? 0) === 1;
    }

    private static function lockName(int $taskId): string
    {
        return 'cartella.'.substr(hash('xxh64', (string) config('database.connections.mariadb.database')), 0, 8).'.task.'.$taskId;
    }

    /** @param  callable(self): array<string, mixed>  $work */
    private function through(callable $work): void
    {
        try {
            $this->end('done', $work($this));
        } catch (TaskCancelled) {
            $this->end('cancelled', ['message' => 'Stopped. What was finished is kept.']);
        } catch (\Throwable $trouble) {
            if (TaskLost::isBehind($trouble)) {
                Log::warning('The database went away in the middle of a task; it is taken up again.', ['task' => $this->task->ulid, 'cause' => $trouble->getMessage()]);
                throw $trouble;
            }
            $this->endWith($trouble);
        }
    }

    private function endWith(\Throwable $trouble): void
    {
        [$message, $fix, $facts] = match (true) {
            $trouble instanceof CartellaException => [$trouble->getMessage(), $trouble->fix(), ['code' => $trouble->problemCode()] + $trouble->context()],
            $trouble instanceof Problem => [$trouble->getMessage(), $trouble->fix, ['code' => $trouble->problemCode] + $trouble->context],
            default => ['It stopped with an error.', 'Try again; the cause is in the log under '.$this->task->ulid.'.', ['exception' => $trouble]],
        };
        Log::log(isset($facts['exception']) ? 'error' : 'warning', $trouble->getMessage(), ['task' => $this->task->ulid] + $facts);
        $this->end('failed', ['message' => $message, 'fix' => $fix]);
    }

    public function expect(int $total, int $totalBytes = 0): void
    {
        $this->task->update(['total' => $total, 'total_bytes' => $totalBytes]);
        $this->tell();
    }

    /**
     * @param  int  $done  of the total
     * @param  string  $now  what is being worked on
     * @param  int  $copiedBytes  bytes that are written but not verified yet count here first
     * @param  array<string, int>|null  $byStore  verified bytes by the key of the store
     *
     * @throws TaskCancelled
     * @throws TaskLost
     */
    public function at(int $done, int $doneBytes = 0, string $now = '', int $copiedBytes = 0, ?array $byStore = null): void
    {
        $time = hrtime(true);
        if ($time - $this->writtenAt < self::WRITE_EVERY_NS && $done < $this->task->total) {
            return;
        }
        $moved = max($doneBytes, $copiedBytes);
        if ($this->writtenAt === 0) {
            $this->startBytes = $moved;
        }
        $this->writtenAt = $time;
        $seconds = max(0.05, ($time - $this->startedAt) / 1e9);
        $this->task->update([
            'done' => $done,
            'done_bytes' => $doneBytes,
            'copied_bytes' => $moved,
            'by_store' => $byStore,
            'bytes_per_second' => (int) max(0, ($moved - $this->startBytes) / $seconds),
            'now' => mb_substr(mb_scrub($now), 0, 300),
        ]);
        $this->tell();
        if ((int) (DB::selectOne('SELECT IS_USED_LOCK(?) = CONNECTION_ID() AS held', [self::lockName($this->task->id)])->held ?? 0) !== 1) {
            throw new TaskLost('The lock of the task is gone.');
        }
        if (Task::query()->whereKey($this->task->id)->whereNotNull('cancel_asked_at')->exists()) {
            throw new TaskCancelled();
        }
    }

    /** @param  array<string, mixed>  $result */
    private function end(string $state, array $result): void
    {
        $this->task->update(['state' => $state, 'result' => $result, 'ended_at' => now(), 'now' => ''] + ($state === 'done' ? ['done' => $this->task->total] : []));
        $this->tell();
    }

    private function tell(): void
    {
        Live::tell($this->task->production_id, 'tasks', ['task' => $this->task->ulid, 'kind' => $this->task->kind, 'state' => $this->task->state]);
    }
}
