<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// The tracks that new cuts of a production have.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasColumn('productions', 'track_plan')) {
            Schema::table('productions', static function (Blueprint $table): void {
                $table->json('track_plan')->nullable();
            });
        }
    }

    public function down(): void
    {
        Schema::table('productions', static function (Blueprint $table): void {
            $table->dropColumn('track_plan');
        });
    }
};
