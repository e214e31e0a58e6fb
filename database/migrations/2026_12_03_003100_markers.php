<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// What a marker is about. Asked first whether an earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasColumn('markers', 'about')) {
            Schema::table('markers', static fn(Blueprint $columns) => $columns->string('about', 12)->nullable());
        }
    }
};
