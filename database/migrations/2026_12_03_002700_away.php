<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// Cards and clips are taken away without losing what points at them, and found again when their media come back. Each statement
// asks first whether an earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        foreach (['cards', 'clips'] as $table) {
            if (!Schema::hasColumn($table, 'away_at')) {
                Schema::table($table, static fn(Blueprint $columns) => $columns->timestamp('away_at')->nullable());
            }
        }
        if (!Schema::hasColumn('clips', 'found')) {
            Schema::table('clips', static fn(Blueprint $columns) => $columns->json('found')->nullable());
        }
        if (!Schema::hasIndex('clips', ['production_id', 'away_at'])) {
            Schema::table('clips', static fn(Blueprint $columns) => $columns->index(['production_id', 'away_at']));
        }
    }
};
