<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // Whether the recorder's sound is stretched by the drift that line-up measured; a person's choice, kept by later runs.
        Schema::table('placements', static fn(Blueprint $table) => $table->boolean('drift_applied')->default(false)->after('drift_ppm'));
    }

    public function down(): void
    {
        Schema::table('placements', static fn(Blueprint $table) => $table->dropColumn('drift_applied'));
    }
};
