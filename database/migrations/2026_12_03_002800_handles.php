<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// How far beyond its in and out a subclip may be looked at, ticks. Asked first whether an earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasColumn('subclips', 'handle_ticks')) {
            Schema::table('subclips', static fn(Blueprint $columns) => $columns->bigInteger('handle_ticks')->default(0));
        }
    }
};
