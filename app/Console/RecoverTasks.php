<?php

declare(strict_types=1);

namespace App\Console;

use App\Domain\Tasks\StartTask;
use App\Domain\Tasks\TaskRun;
use App\Models\Task;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

/**
 * Sends tasks again that nobody works on and no queue holds: whose worker was killed, until three tries got no further, and those that
 * wait but lost their job.
 */
final class RecoverTasks extends Command
{
    /** A task is written and sent in one transaction, and a job that was taken needs a moment to take its lock. */
    private const GRACE_SECONDS = 5;

    /** Longer than any task that waits for room is left alone. */
    private const LATEST_SECONDS = 60;

    protected $signature =
        'cartella:recover {--all : after a restart, when every job that was taken has lost its worker} ' .
        '{--clean : the desk was stopped on purpose, which costs no try}';

    protected $description = 'Start tasks again whose worker was killed';

    public function handle(StartTask $start): int
    {
        if ($this->option('all')) {
            DB::table('jobs')->whereNotNull('reserved_at')->delete();
        }
        if ($this->option('clean')) {
            Task::query()->whereNull('ended_at')->where('state', 'running')->where('tries', '>', 0)->decrement('tries');
        }
        // A clock that was set back would let what waits wait for as long; a task's job is never for much later. Others are, such as what
        // is told to an address that does not answer.
        DB::table('jobs')
            ->whereIn('id', Task::query()->whereNull('ended_at')->whereNotNull('job')->select('job'))
            ->where('available_at', '>', now()->addSeconds(self::LATEST_SECONDS)->getTimestamp())
            ->update(['available_at' => now()->getTimestamp()]);
        foreach (
            Task::query()
                ->whereNull('ended_at')
                ->whereIn('state', ['running', 'waiting'])
                ->lazyById(200)
            as $task
        ) {
            if (
                TaskRun::isHeld($task->id) ||
                ($task->state === 'waiting' && !$this->option('all') && self::isRecent($task)) ||
                $start->isQueued($task)
            ) {
                continue;
            }
            if (TaskRun::isSpent($task)) {
                $this->line('Given up: ' . $task->title);
                TaskRun::giveUpOn($task);
            } else {
                $this->line('Starting again: ' . $task->title);
                $start->send($task);
            }
        }

        return self::SUCCESS;
    }

    private static function isRecent(Task $task): bool
    {
        return abs(now()->diffInSeconds($task->updated_at)) <= self::GRACE_SECONDS;
    }
}
