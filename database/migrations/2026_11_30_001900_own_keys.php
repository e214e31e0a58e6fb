<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// A person's own keys, by what they are for.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasColumn('users', 'own_keys')) {
            Schema::table('users', static fn(Blueprint $table) => $table->json('own_keys')->nullable());
        }
    }
};
