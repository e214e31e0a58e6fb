<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('productions', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->string('name', 120)->unique();
            $table->unsignedInteger('rate_num');
            $table->unsignedInteger('rate_den');
            $table->boolean('drop_frame')->default(false);
            $table->string('slate_style', 10)->default('letter');
            $table->timestamps();
        });
        Schema::create('production_user', static function (Blueprint $table): void {
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->primary(['production_id', 'user_id']);
        });
        Schema::create('shoot_days', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->unsignedSmallInteger('number');
            $table->date('date');
            $table->string('unit', 60)->default('Main unit');
            $table->timestamps();
            $table->unique(['production_id', 'number']);
        });
        Schema::create('devices', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->string('letter', 12);
            $table->string('kind', 10);
            $table->string('note', 60)->default('');
            $table->unsignedSmallInteger('lane');
            $table->timestamps();
            $table->unique(['production_id', 'letter']);
        });
        // What to add to a device's recorded times, kept beside them: one offset a device and day.
        Schema::create('clock_offsets', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('device_id')->constrained()->cascadeOnDelete();
            $table->foreignId('shoot_day_id')->constrained()->cascadeOnDelete();
            $table->bigInteger('learned_ticks')->nullable();
            $table->unsignedSmallInteger('votes')->default(0);
            $table->bigInteger('applied_ticks')->nullable();
            $table->timestamps();
            $table->unique(['device_id', 'shoot_day_id']);
        });
        Schema::create('scenes', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->string('name', 20);
            $table->string('heading', 120)->default('');
            $table->timestamps();
            $table->unique(['production_id', 'name']);
        });
        Schema::create('tasks', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->string('kind', 20);
            $table->string('title', 160);
            $table->json('subject');
            $table->string('state', 12)->index();
            $table->unsignedBigInteger('done')->default(0);
            $table->unsignedBigInteger('total')->default(0);
            $table->unsignedBigInteger('done_bytes')->default(0);
            $table->unsignedBigInteger('total_bytes')->default(0);
            $table->unsignedBigInteger('bytes_per_second')->default(0);
            $table->string('now', 300)->default('');
            $table->json('result')->nullable();
            $table->timestamp('cancel_asked_at')->nullable();
            $table->timestamp('started_at')->nullable();
            $table->timestamp('ended_at')->nullable();
            $table->timestamps();
        });
        Schema::create('events', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->string('topic', 30);
            $table->json('facts');
            $table->timestamp('created_at')->useCurrent();
        });
    }

    public function down(): void
    {
        foreach (['events', 'tasks', 'scenes', 'clock_offsets', 'devices', 'shoot_days', 'production_user', 'productions'] as $table) {
            Schema::drop($table);
        }
    }
};
