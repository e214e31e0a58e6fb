<?php

declare(strict_types=1);

use App\Console\RecoverTasks;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schedule;

Schedule::command(RecoverTasks::class)->everyTenSeconds();
// Pages that were closed longer than this ask for everything anew.
Schedule::call(static fn () => DB::table('events')->where('created_at', '<', now()->subDay())->delete())->hourly();
