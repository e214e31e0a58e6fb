<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

use App\Models\Task;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use App\Support\WroteAtOnce;
use Cartella\Core\CartellaException;
use Illuminate\Support\Facades\Log;

/**
 * The run of one task by one worker: holds the task's lock in the database, writes its progress a few times a second,
 * notices a cancel, and ends it with a plain sentence whatever happens.
 *
 * The lock belongs to the worker's connection, so it goes by itself when the worker is killed; {@see RecoverTasks}
 * then finds the task and starts it again, until {@see TRIES} tries have got no further. What ends without being the work's fault (no room,
 * a
 * worker that was asked to stop, a database that went away) costs no try.
 */
final class TaskRun
{
    public const TRIES = 3;

    private const WRITE_EVERY_NS = 250_000_000;

    /** Seconds until a task that waits for room, or for another run on the same thing, is tried again. */
    private const AGAIN_SECONDS = 15;

    /** Until one goes on that wrote at once with another. */
    private const SOON_SECONDS = 2;

    /** How long a run waits for a database that comes back, to hand its try back: times half a second. */
    private const RETURN_TRIES = 20;

    private int $writtenAt = 0;

    private readonly int $startedAt;

    private int $startBytes = 0;

    private int $startDone = 0;

    private function __construct(public readonly Task $task)
    {
        $this->startedAt = hrtime(true);
    }

    /**
     * Runs the work unless the task is over or another worker holds it.
     *
     * @param  callable(self): array<string, mixed>  $work  its answer is kept as the task's result
     * @param  string|null  $on  what only one run at a time may work on; the others wait
     */
    public static function of(int $taskId, callable $work, ?string $on = null): void
    {
        if (!TaskLock::take("task.$taskId")) {
            return;
        }
        $holds = false;
        try {
            $task = Task::query()->find($taskId);
            if ($task === null || $task->isOver()) {
                return;
            }
            $run = new self($task);
            $holds = $on === null || TaskLock::take($on);
            if (!$holds) {
                $run->wait('Waits for another run on the same.', self::AGAIN_SECONDS);
            } elseif (self::isSpent($task)) {
                $run->giveUp();
            } else {
                $task->update([
                    'state' => 'running',
                    'started_at' => $task->started_at ?? now(),
                    'tries' => 1 + (self::gotFurther($task) ? 0 : $task->tries),
                    'tried_at_mark' => self::mark($task),
                    'worker' => gethostname() . ' ' . getmypid(),
                ]);
                LastWords::listen($task->ulid);
                $run->through($work);
            }
        } finally {
            LastWords::stop();
            if ($holds && $on !== null) {
                TaskLock::letGo($on);
            }
            TaskLock::letGo("task.$taskId");
        }
    }

    public static function isHeld(int $taskId): bool
    {
        return !TaskLock::isFree("task.$taskId");
    }

    /** Whether its workers died so often, without getting any further, that the task itself must be what kills them. */
    public static function isSpent(Task $task): bool
    {
        return $task->tries >= self::TRIES && !self::gotFurther($task);
    }

    private static function gotFurther(Task $task): bool
    {
        return self::mark($task) > (int) $task->tried_at_mark;
    }

    /** How far the work is: bytes where there are any, else things done. */
    private static function mark(Task $task): int
    {
        return $task->total_bytes > 0 ? max((int) $task->copied_bytes, (int) $task->done_bytes) : (int) $task->done;
    }

    /** Ends a task whose worker died too often, with what the last one said. */
    public static function giveUpOn(Task $task): void
    {
        (new self($task))->giveUp();
    }

    private function giveUp(): void
    {
        Log::error('A task was given up: its worker died each time.', [
            'task' => $this->task->ulid,
            'words' => LastWords::of($this->task->ulid),
        ]);
        $this->end('failed', [
            'message' => sprintf(
                'It was begun %d times, and each time its worker died: %s',
                $this->task->tries,
                LastWords::of($this->task->ulid),
            ),
            'fix' => 'Look at what it was working on, then try again.',
        ]);
        $this->task->refresh();
        TaskFailed::dispatch($this->task);
    }

    /** @param  callable(self): array<string, mixed>  $work */
    private function through(callable $work): void
    {
        try {
            $this->end('done', $work($this));
        } catch (NoRoom $wait) {
            $this->handBack();
            $this->wait($wait->getMessage(), self::AGAIN_SECONDS);
        } catch (TaskPaused) {
            $this->handBack();
            $this->wait('Goes on when the desk runs again.', 0);
        } catch (TaskCancelled) {
            $this->end('cancelled', ['message' => 'Stopped. What was finished is kept.']);
        } catch (\Throwable $trouble) {
            if (TaskLost::isBehind($trouble)) {
                rescue(fn() => retry(self::RETURN_TRIES, fn() => $this->handBack(), 500), report: false);
                Log::warning('The database went away in the middle of a task; it is taken up again.', [
                    'task' => $this->task->ulid,
                    'cause' => $trouble->getMessage(),
                ]);
                throw $trouble;
            }
            if (WroteAtOnce::isBehind($trouble)) {
                Log::notice('Another one wrote the same at once; the task goes on where it was.', ['task' => $this->task->ulid]);
                $this->handBack();
                $this->wait('Goes on when the others have written.', self::SOON_SECONDS);

                return;
            }
            $this->endWith($trouble);
        }
    }

    private function handBack(): void
    {
        Task::query()->whereKey($this->task->id)->where('tries', '>', 0)->decrement('tries');
    }

    /** Back among those that wait; sent again after some seconds, or found by {@see RecoverTasks}. */
    private function wait(string $why, int $seconds): void
    {
        $this->task->update(['state' => 'waiting', 'now' => mb_substr($why, 0, 300), 'bytes_per_second' => 0]);
        if ($seconds > 0) {
            app(StartTask::class)->send($this->task, $seconds);
        }
        $this->tell();
    }

    private function endWith(\Throwable $trouble): void
    {
        [$message, $fix, $facts] = match (true) {
            $trouble instanceof CartellaException => [
                $trouble->getMessage(),
                $trouble->fix(),
                ['code' => $trouble->problemCode()] + $trouble->context(),
            ],
            $trouble instanceof Problem => [$trouble->getMessage(), $trouble->fix, ['code' => $trouble->problemCode] + $trouble->context],
            default => [
                'It stopped with an error.',
                'Try again; the cause is in the log under ' . $this->task->ulid . '.',
                ['exception' => $trouble],
            ],
        };
        Log::log(isset($facts['exception']) ? 'error' : 'warning', $trouble->getMessage(), ['task' => $this->task->ulid] + $facts);
        $this->end('failed', ['message' => $message, 'fix' => $fix]);
        TaskFailed::dispatch($this->task);
    }

    public function expect(int $total, int $totalBytes = 0): void
    {
        $this->task->update(['total' => $total, 'total_bytes' => $totalBytes]);
        $this->tell(true);
    }

    /**
     * @param  int  $done  of the total
     * @param  string  $now  what is being worked on
     * @param  int  $copiedBytes  bytes that are written but not verified yet count here first
     * @param  array<string, int>|null  $byStore  verified bytes by the key of the store
     *
     * @throws TaskCancelled
     * @throws TaskLost
     * @throws TaskPaused
     * @throws NoRoom
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
            $this->startDone = $done;
        }
        $this->writtenAt = $time;
        $seconds = max(0.05, ($time - $this->startedAt) / 1e9);
        $this->task->update([
            'done' => $done,
            'done_bytes' => $doneBytes,
            'copied_bytes' => $moved,
            'by_store' => $byStore,
            'bytes_per_second' => (int) max(0, ($moved - $this->startBytes) / $seconds),
            'done_per_minute' => $moved > 0 || $done <= $this->startDone ? null : (60 * ($done - $this->startDone)) / $seconds,
            'now' => mb_substr(mb_scrub($now), 0, 300),
        ]);
        $this->tell(true);
        if (!TaskLock::isOurs('task.' . $this->task->id)) {
            throw new TaskLost('The lock of the task is gone.');
        }
        if (Task::query()->whereKey($this->task->id)->whereNotNull('cancel_asked_at')->exists()) {
            throw new TaskCancelled();
        }
        if (app()->bound('queue.worker') && app('queue.worker')->shouldQuit) {
            throw new TaskPaused();
        }
        app(Room::class)->keepFloor();
    }

    /** @param  array<string, mixed>  $result */
    private function end(string $state, array $result): void
    {
        $this->task->update(
            ['state' => $state, 'result' => $result, 'ended_at' => now(), 'now' => '', 'alone' => null] +
                ($state === 'done' ? ['done' => $this->task->total] : []),
        );
        $this->tell();
    }

    /** @param  bool  $isProgress  it only got further: pages need not ask what else has changed */
    private function tell(bool $isProgress = false): void
    {
        Live::tell(
            $this->task->production_id,
            Topic::Tasks,
            ['task' => $this->task->ulid, 'kind' => $this->task->kind, 'state' => $this->task->state] +
                ($isProgress
                    ? [
                        'progress' => true,
                        'done' => (int) $this->task->done,
                        'total' => (int) $this->task->total,
                        'done_per_minute' => $this->task->done_per_minute,
                        'now' => (string) $this->task->now,
                    ]
                    : []),
        );
    }
}
