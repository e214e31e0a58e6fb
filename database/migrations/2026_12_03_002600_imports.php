<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// Files that are dropped on a page come in piece by piece, are kept aside until all of them are whole, and are copied then as a card
// is. Each statement asks first whether an earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasTable('uploads')) {
            Schema::create('uploads', static function (Blueprint $table): void {
                $table->id();
                $table->char('ulid', 26)->unique();
                $table->foreignId('production_id')->constrained()->cascadeOnDelete();
                $table->foreignId('shoot_day_id')->constrained()->cascadeOnDelete();
                $table->foreignId('user_id')->constrained()->cascadeOnDelete();
                $table->foreignId('card_id')->nullable()->constrained()->cascadeOnDelete();
                $table->string('import_kind', 20)->nullable();
                $table->char('fingerprint', 32);
                $table->unsignedInteger('files');
                $table->unsignedBigInteger('size_bytes');
                $table->timestamps();
                $table->index(['production_id', 'card_id']);
            });
        }
        if (!Schema::hasTable('upload_files')) {
            Schema::create('upload_files', static function (Blueprint $table): void {
                $table->id();
                $table->foreignId('upload_id')->constrained()->cascadeOnDelete();
                $table->unsignedInteger('number');
                $table->string('path', 1024);
                $table->unsignedBigInteger('size_bytes');
                $table->unsignedBigInteger('received_bytes')->default(0);
                $table->unique(['upload_id', 'number']);
            });
        }
        if (!Schema::hasColumn('cards', 'import_kind')) {
            Schema::table('cards', static fn(Blueprint $table) => $table->string('import_kind', 20)->nullable());
        }
    }
};
