<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// Reels remember what their recipe chose last, so that what a person left out stays out; notes have a stretch and the reel in which
// they were said; everybody gives stars of their own; a reel can be watched by a link, alone or in step with the room; the script's
// words stand beside the picture. Each statement asks first whether an earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        $this->add('sequences', 'built_takes', static fn(Blueprint $table) => $table->json('built_takes')->nullable());
        $this->add('scenes', 'text', static fn(Blueprint $table) => $table->mediumText('text')->nullable());
        $this->add('screening_notes', 'out_ticks', static fn(Blueprint $table) => $table->bigInteger('out_ticks')->nullable());
        $this->add(
            'screening_notes',
            'sequence_id',
            static fn(Blueprint $table) => $table->foreignId('sequence_id')->nullable()->constrained()->nullOnDelete(),
        );
        if (!Schema::hasTable('take_ratings')) {
            Schema::create('take_ratings', static function (Blueprint $table): void {
                $table->id();
                $table->char('ulid', 26)->unique();
                $table->foreignId('take_id')->constrained()->cascadeOnDelete();
                $table->foreignId('user_id')->constrained()->cascadeOnDelete();
                $table->unsignedTinyInteger('stars');
                $table->timestamps();
                $table->unique(['take_id', 'user_id']);
            });
        }
        if (!Schema::hasTable('screening_links')) {
            Schema::create('screening_links', static function (Blueprint $table): void {
                $table->id();
                $table->char('ulid', 26)->unique();
                $table->foreignId('production_id')->constrained()->cascadeOnDelete();
                $table->foreignId('sequence_id')->constrained()->cascadeOnDelete();
                $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
                $table->string('for_name', 80);
                $table->char('secret_hash', 64)->unique();
                $table->string('password')->nullable();
                $table->timestamp('expires_at')->nullable();
                $table->timestamp('revoked_at')->nullable();
                $table->unsignedInteger('opens')->default(0);
                $table->timestamp('last_opened_at')->nullable();
                $table->timestamps();
            });
        }
        if (!Schema::hasTable('screening_rooms')) {
            Schema::create('screening_rooms', static function (Blueprint $table): void {
                $table->id();
                $table->foreignId('sequence_id')->unique()->constrained()->cascadeOnDelete();
                $table->foreignId('user_id')->constrained()->cascadeOnDelete();
                $table->unsignedBigInteger('number')->default(0);
                $table->bigInteger('at_ticks')->default(0);
                $table->decimal('speed', 5, 2)->default(0);
                $table->unsignedBigInteger('epoch_ms')->default(0);
                $table->string('shows', 500)->default('');
                $table->timestamp('heard_at', 3)->nullable();
                $table->timestamps();
            });
        }
    }

    private function add(string $table, string $column, callable $how): void
    {
        if (!Schema::hasColumn($table, $column)) {
            Schema::table($table, $how);
        }
    }
};
