<?php

declare(strict_types=1);

namespace App\Console;

use App\Domain\Tasks\StartTask;
use App\Domain\Tasks\TaskRun;
use App\Models\Task;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

/** Sends tasks again whose worker was killed: they say `running` but nobody holds their lock. */
final class RecoverTasks extends Command
{
    protected $signature = 'cartella:recover {--all : also those that still wait, after a restart}';

    protected $description = 'Start tasks again whose worker was killed';

    public function handle(StartTask $start): int
    {
        if ($this->option('all')) {
            DB::table('jobs')->whereNotNull('reserved_at')->delete(); // taken by workers that are gone
        }
        $tasks = Task::query()->whereNull('ended_at')->where('state', 'running')->get();
        foreach ($tasks as $task) {
            if (! TaskRun::isHeld($task->id)) {
                $this->line('Starting again: '.$task->title);
                $start->send($task);
            }
        }

        return self::SUCCESS;
    }
}
