<?php

declare(strict_types=1);

use App\Console\RecoverTasks;
use App\Domain\Footage\RenewMedia;
use App\Domain\Health\Prune;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Schedule;

Schedule::command(RecoverTasks::class)->everyTenSeconds();
Schedule::call(static fn() => Cache::put('schedule.beat', now()->getTimestamp(), 600))->everyMinute();
// Pages that were closed longer than a day ask for everything anew; what ended long ago is asked for by nobody.
Schedule::call(static fn() => app(Prune::class)())->hourly();
Schedule::call(static fn() => RenewMedia::isNeeded() ? RenewMedia::dispatch()->onQueue('media') : null)->everyMinute();
