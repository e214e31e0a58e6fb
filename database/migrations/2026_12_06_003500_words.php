<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

// What is said in clips: a transcript for each, passages of it with the time of every word, and the words of a production, by
// which near misses are found. Each statement asks first whether an earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasTable('transcripts')) {
            Schema::create('transcripts', static function (Blueprint $table): void {
                $table->id();
                $table->char('ulid', 26)->unique();
                $table->foreignId('production_id')->constrained()->cascadeOnDelete();
                $table->foreignId('clip_id')->unique()->constrained()->cascadeOnDelete();
                $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
                $table->string('language', 20);
                $table->string('source', 20);
                $table->string('engine', 60);
                $table->string('model', 60);
                $table->json('calls')->nullable();
                $table->timestamps();
            });
        }
        if (!Schema::hasTable('passages')) {
            Schema::create('passages', static function (Blueprint $table): void {
                $table->id();
                $table->char('ulid', 26)->unique();
                $table->foreignId('production_id')->constrained()->cascadeOnDelete();
                $table->foreignId('transcript_id')->constrained()->cascadeOnDelete();
                $table->foreignId('clip_id')->constrained()->cascadeOnDelete();
                $table->bigInteger('start_ticks');
                $table->bigInteger('end_ticks');
                $table->string('speaker', 60)->nullable();
                $table->boolean('is_draft')->default(false);
                $table->mediumText('words');
                $table->text('said');
                $table->text('pairs');
                $table->foreignId('edited_by')->nullable()->constrained('users')->nullOnDelete();
                $table->timestamp('edited_at')->nullable();
                $table->timestamps();
                $table->index(['clip_id', 'start_ticks']);
                $table->index(['production_id', 'speaker']);
                $table->index(['production_id', 'updated_at']);
            });
        }
        // Two indexes of words in one statement are more than the database takes.
        foreach (['said', 'pairs'] as $column) {
            if (DB::select("SHOW INDEX FROM passages WHERE Key_name = 'passages_{$column}_fulltext'") === []) {
                Schema::table('passages', static fn(Blueprint $table) => $table->fullText($column));
            }
        }
        if (!Schema::hasTable('spoken_words')) {
            Schema::create('spoken_words', static function (Blueprint $table): void {
                $table->foreignId('production_id')->constrained()->cascadeOnDelete();
                $table->string('word', 60);
                $table->unsignedInteger('times')->default(0);
                $table->primary(['production_id', 'word']);
            });
        }
        // Which clips' words a step is about, as change_takes says it of takes.
        if (!Schema::hasTable('change_clips')) {
            Schema::create('change_clips', static function (Blueprint $table): void {
                $table->foreignId('change_id')->constrained()->cascadeOnDelete();
                $table->foreignId('clip_id')->constrained()->cascadeOnDelete();
                $table->primary(['clip_id', 'change_id']);
            });
        }
        if (!Schema::hasColumn('productions', 'words_service')) {
            Schema::table('productions', static fn(Blueprint $table) => $table->text('words_service')->nullable());
        }
    }

    public function down(): void
    {
        Schema::table('productions', static fn(Blueprint $table) => $table->dropColumn('words_service'));
        Schema::dropIfExists('change_clips');
        Schema::dropIfExists('spoken_words');
        Schema::dropIfExists('passages');
        Schema::dropIfExists('transcripts');
    }
};
