<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// What rules ask of takes most often. Asked first whether an earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasIndex('takes', ['production_id', 'status', 'size'])) {
            Schema::table('takes', static fn(Blueprint $columns) => $columns->index(['production_id', 'status', 'size']));
        }
    }
};
