<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('subclips', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('clip_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->string('name', 160);
            $table->bigInteger('in_ticks');
            $table->bigInteger('out_ticks');
            $table->timestamps();
        });
        Schema::create('clip_marks', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('clip_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->bigInteger('in_ticks')->nullable();
            $table->bigInteger('out_ticks')->nullable();
            $table->timestamps();
            $table->unique(['clip_id', 'user_id']);
        });
        Schema::create('bins', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->foreignId('parent_id')->nullable()->constrained('bins')->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->string('name', 120);
            $table->timestamps();
            $table->unique(['production_id', 'parent_id', 'name']);
        });
        Schema::create('bin_items', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('bin_id')->constrained()->cascadeOnDelete();
            $table->foreignId('clip_id')->constrained()->cascadeOnDelete();
            $table->timestamps();
            $table->unique(['bin_id', 'clip_id']);
        });
        Schema::create('reels', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->foreignId('shoot_day_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->string('name', 120);
            $table->boolean('circled_only')->default(false);
            $table->timestamps();
        });
        Schema::create('reel_items', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('reel_id')->constrained()->cascadeOnDelete();
            $table->unsignedInteger('position');
            $table->foreignId('take_id')->constrained()->cascadeOnDelete();
            $table->foreignId('clip_id')->constrained()->cascadeOnDelete();
            $table->bigInteger('in_ticks');
            $table->bigInteger('out_ticks');
            $table->unique(['reel_id', 'position']);
        });
        Schema::create('notes', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('take_id')->constrained()->cascadeOnDelete();
            $table->foreignId('clip_id')->nullable()->constrained()->nullOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->bigInteger('at_ticks');
            $table->string('text', 1000);
            $table->timestamps();
        });
        Schema::create('handoffs', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->unsignedSmallInteger('number');
            $table->string('title', 160);
            $table->json('chosen');
            $table->string('folder', 255);
            $table->string('state', 12);
            $table->json('summary')->nullable();
            $table->timestamp('delivered_at')->nullable();
            $table->timestamp('answered_at')->nullable();
            $table->foreignId('answered_by')->nullable()->constrained('users')->nullOnDelete();
            $table->string('query', 1000)->nullable();
            $table->timestamps();
            $table->unique(['production_id', 'number']);
        });
    }

    public function down(): void
    {
        foreach (['handoffs', 'notes', 'reel_items', 'reels', 'bin_items', 'bins', 'clip_marks', 'subclips'] as $table) {
            Schema::drop($table);
        }
    }
};
