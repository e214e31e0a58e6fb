<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// Who had a page of a production open last, and when.
return new class extends Migration {
    public function up(): void
    {
        Schema::create('presences', static function (Blueprint $table): void {
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->timestamp('seen_at');
            $table->primary(['production_id', 'user_id']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('presences');
    }
};
