<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // Colour corrections by slope, offset, power and saturation; a clip's own goes before its device's.
        Schema::create('looks', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->string('name', 120);
            $table->string('source', 190)->default('');
            $table->json('slope');
            $table->json('offset');
            $table->json('power');
            $table->double('saturation')->default(1);
            $table->timestamps();
            $table->unique(['production_id', 'name']);
        });
        Schema::table('devices', static fn(Blueprint $table) => $table->foreignId('look_id')->nullable()->constrained()->nullOnDelete());
        Schema::table('clips', static fn(Blueprint $table) => $table->foreignId('look_id')->nullable()->constrained()->nullOnDelete());
    }

    public function down(): void
    {
        Schema::table('clips', static fn(Blueprint $table) => $table->dropConstrainedForeignId('look_id'));
        Schema::table('devices', static fn(Blueprint $table) => $table->dropConstrainedForeignId('look_id'));
        Schema::drop('looks');
    }
};
