<?php

declare(strict_types=1);

use App\Console\RecoverTasks;
use Illuminate\Support\Facades\Schedule;

Schedule::command(RecoverTasks::class)->everyMinute();
Schedule::command('model:prune')->daily();
