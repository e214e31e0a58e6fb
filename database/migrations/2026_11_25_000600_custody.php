<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // What is in the readers now; the watch writes it, pages only read it.
        Schema::create('volumes', static function (Blueprint $table): void {
            $table->id();
            // Compared byte by byte: names that differ only in case are two volumes.
            $table->string('name', 255)->charset('utf8mb4')->collation('utf8mb4_bin')->unique();
            $table->char('fingerprint', 32)->index();
            $table->char('state', 32);
            $table->json('survey');
            $table->binary('list');
            $table->timestamp('looked_at')->nullable();
            $table->timestamps();
        });
        DB::statement('ALTER TABLE volumes MODIFY list LONGBLOB NOT NULL');
        // Every release that ever was, with what it was based on; a card in use again keeps its earlier ones.
        Schema::create('card_releases', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('card_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->json('evidence');
            $table->timestamp('created_at')->useCurrent();
        });
        Schema::table('cards', static function (Blueprint $table): void {
            $table->char('fingerprint', 32)->nullable()->index();
            $table->unsignedSmallInteger('use_number')->default(1);
            $table->string('first_at', 20)->nullable();
            $table->string('last_at', 20)->nullable();
            $table->bigInteger('clock_ticks')->nullable();
            $table->index(['production_id', 'volume']);
        });
        Schema::table('devices', static function (Blueprint $table): void {
            $table->bigInteger('clock_ticks')->nullable();
        });
        Schema::table('productions', static function (Blueprint $table): void {
            $table->string('card_template', 200)->nullable();
        });
        Schema::table('tasks', static function (Blueprint $table): void {
            $table->unsignedBigInteger('copied_bytes')->default(0);
            $table->json('by_store')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('tasks', static fn(Blueprint $table) => $table->dropColumn(['copied_bytes', 'by_store']));
        Schema::table('productions', static fn(Blueprint $table) => $table->dropColumn('card_template'));
        Schema::table('devices', static fn(Blueprint $table) => $table->dropColumn('clock_ticks'));
        Schema::table('cards', static function (Blueprint $table): void {
            $table->dropIndex(['production_id', 'volume']);
            $table->dropColumn(['fingerprint', 'use_number', 'first_at', 'last_at', 'clock_ticks']);
        });
        Schema::drop('card_releases');
        Schema::drop('volumes');
    }
};
