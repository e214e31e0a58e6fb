<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// How fast work goes that is counted in things and not in bytes.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasColumn('tasks', 'done_per_minute')) {
            Schema::table('tasks', static fn(Blueprint $table) => $table->float('done_per_minute')->nullable()->after('bytes_per_second'));
        }
    }
};
