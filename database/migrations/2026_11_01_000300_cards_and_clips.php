<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('cards', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->foreignId('shoot_day_id')->constrained()->cascadeOnDelete();
            $table->foreignId('device_id')->nullable()->constrained()->nullOnDelete();
            $table->string('roll', 100);
            $table->string('volume', 190);
            $table->string('state', 12);
            $table->unsignedInteger('files')->default(0);
            $table->unsignedInteger('verified_files')->default(0);
            $table->unsignedBigInteger('size_bytes')->default(0);
            $table->json('faults')->nullable();
            $table->timestamp('verified_at')->nullable();
            $table->timestamp('released_at')->nullable();
            $table->foreignId('released_by')->nullable()->constrained('users')->nullOnDelete();
            $table->timestamps();
            $table->unique(['production_id', 'shoot_day_id', 'roll']);
        });
        Schema::create('card_copies', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('card_id')->constrained()->cascadeOnDelete();
            $table->string('store', 40);
            $table->string('path', 400);
            $table->string('manifest', 255)->nullable();
            $table->timestamps();
            $table->unique(['card_id', 'store']);
        });
        Schema::create('card_files', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('card_id')->constrained()->cascadeOnDelete();
            $table->string('path', 1024);
            $table->char('path_hash', 32);
            $table->unsignedBigInteger('size_bytes');
            $table->string('algorithm', 10)->nullable();
            $table->string('hash', 64)->nullable();
            $table->unsignedTinyInteger('copies')->default(0);
            $table->timestamp('verified_at')->nullable();
            $table->string('fault', 300)->nullable();
            $table->unique(['card_id', 'path_hash']);
        });
        Schema::create('takes', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->foreignId('shoot_day_id')->constrained()->cascadeOnDelete();
            $table->string('scene', 20);
            $table->string('setup', 24);
            $table->unsignedSmallInteger('take');
            // Compared byte by byte: the key is made so that bytes sort as slates do.
            $table->string('sort_key', 60)->charset('ascii')->collation('ascii_bin')->index();
            $table->string('description', 300)->default('');
            $table->string('size', 30)->default('');
            $table->string('status', 10)->default('none');
            $table->boolean('is_mos')->default(false);
            $table->boolean('is_tail_slate')->default(false);
            $table->boolean('is_wild')->default(false);
            $table->boolean('is_guide_only')->default(false);
            $table->json('absent_devices')->nullable();
            $table->text('notes')->nullable();
            $table->string('keywords', 300)->default('');
            $table->json('claims')->nullable();
            $table->json('settled')->nullable();
            $table->timestamps();
            $table->unique(['shoot_day_id', 'setup', 'take']);
            $table->fullText(['description', 'notes', 'keywords'], 'takes_words_fulltext');
        });
        Schema::create('clips', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->foreignId('shoot_day_id')->constrained()->cascadeOnDelete();
            $table->foreignId('device_id')->nullable()->constrained()->nullOnDelete();
            $table->foreignId('card_id')->nullable()->constrained()->cascadeOnDelete();
            $table->foreignId('take_id')->nullable()->constrained()->nullOnDelete();
            $table->string('slate_from', 10)->nullable();
            $table->string('kind', 10);
            $table->string('import_kind', 20)->nullable();
            $table->string('name', 255);
            $table->string('path', 1024);
            $table->char('path_hash', 32);
            $table->bigInteger('duration_ticks')->nullable();
            $table->unsignedInteger('rate_num')->nullable();
            $table->unsignedInteger('rate_den')->nullable();
            $table->boolean('drop_frame')->default(false);
            $table->unsignedBigInteger('frames')->nullable();
            $table->bigInteger('start_ticks')->nullable();
            $table->string('recorded_at', 40)->nullable();
            $table->unsignedInteger('sample_rate')->nullable();
            $table->json('channels')->nullable();
            $table->json('facts')->nullable();
            $table->json('problems')->nullable();
            $table->boolean('is_false_start')->default(false);
            $table->boolean('is_wild')->default(false);
            $table->timestamp('proxied_at')->nullable();
            $table->timestamp('sound_synced_at')->nullable();
            $table->timestamps();
            $table->unique(['card_id', 'path_hash']);
            $table->index(['shoot_day_id', 'device_id', 'start_ticks'], 'clips_day_device_start');
            $table->index(['production_id', 'name']);
        });
        Schema::create('placements', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('clip_id')->unique()->constrained()->cascadeOnDelete();
            $table->foreignId('shoot_day_id')->constrained()->cascadeOnDelete();
            $table->unsignedInteger('group')->nullable();
            $table->bigInteger('start_ticks')->nullable();
            $table->string('way', 12)->nullable();
            $table->decimal('confidence', 4, 3)->nullable();
            $table->boolean('is_sure')->default(false);
            $table->decimal('drift_ppm', 7, 2)->nullable();
            $table->json('evidence')->nullable();
            $table->string('stray_reason', 300)->nullable();
            $table->timestamp('locked_at')->nullable();
            $table->timestamps();
        });
        Schema::create('changes', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->string('label', 160);
            $table->json('rows');
            $table->timestamp('undone_at')->nullable();
            $table->timestamps();
            $table->index(['production_id', 'user_id', 'id']);
        });
        Schema::create('settled_points', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('shoot_day_id')->constrained()->cascadeOnDelete();
            $table->string('point', 120);
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->timestamps();
            $table->unique(['shoot_day_id', 'point']);
        });
    }

    public function down(): void
    {
        foreach (['settled_points', 'changes', 'placements', 'clips', 'takes', 'card_files', 'card_copies', 'cards'] as $table) {
            Schema::drop($table);
        }
    }
};
