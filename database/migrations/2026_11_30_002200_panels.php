<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// How wide a person likes the panel of a stage.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasColumn('users', 'panels')) {
            Schema::table('users', static fn(Blueprint $table) => $table->json('panels')->nullable()->after('own_keys'));
        }
    }
};
