<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// A hand-off remembers what was in it, so that the next one can say what is new; the editing team's questions lead to the things
// they are about and are answered with the next package; others are told by web hooks and ask by tokens. Each statement asks first
// whether an earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasColumn('handoffs', 'packing')) {
            Schema::table('handoffs', static fn(Blueprint $table) => $table->longText('packing')->nullable());
        }
        if (!Schema::hasTable('handoff_questions')) {
            Schema::create('handoff_questions', static function (Blueprint $table): void {
                $table->id();
                $table->char('ulid', 26)->unique();
                $table->foreignId('handoff_id')->constrained()->cascadeOnDelete();
                $table->foreignId('clip_id')->nullable()->constrained()->nullOnDelete();
                $table->foreignId('take_id')->nullable()->constrained()->nullOnDelete();
                $table->string('path', 500)->nullable();
                $table->string('question', 1000);
                $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
                $table->string('answer', 1000)->nullable();
                $table->foreignId('answered_by')->nullable()->constrained('users')->nullOnDelete();
                $table->timestamp('answered_at')->nullable();
                $table->timestamps();
            });
        }
        if (!Schema::hasTable('web_hooks')) {
            Schema::create('web_hooks', static function (Blueprint $table): void {
                $table->id();
                $table->char('ulid', 26)->unique();
                $table->foreignId('production_id')->constrained()->cascadeOnDelete();
                $table->string('url', 500);
                $table->text('secret');
                $table->json('events');
                $table->timestamp('told_at')->nullable();
                $table->string('trouble', 300)->nullable();
                $table->timestamps();
            });
        }
        if (!Schema::hasTable('api_tokens')) {
            Schema::create('api_tokens', static function (Blueprint $table): void {
                $table->id();
                $table->char('ulid', 26)->unique();
                $table->foreignId('production_id')->constrained()->cascadeOnDelete();
                $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
                $table->string('name', 80);
                $table->char('token_hash', 64)->unique();
                $table->timestamp('used_at')->nullable();
                $table->timestamp('revoked_at')->nullable();
                $table->timestamps();
            });
        }
    }
};
