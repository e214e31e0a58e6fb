<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// Fields that a production adds for itself. Each statement asks first whether an earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasTable('production_fields')) {
            Schema::create('production_fields', static function (Blueprint $table): void {
                $table->id();
                $table->char('ulid', 26)->unique();
                $table->foreignId('production_id')->constrained()->cascadeOnDelete();
                // In name patterns and in the takes' values; it never changes.
                $table->string('name', 20);
                $table->string('label', 40);
                $table->string('type', 10);
                $table->json('choices')->nullable();
                $table->timestamp('retired_at')->nullable();
                $table->timestamps();
                $table->unique(['production_id', 'name']);
            });
        }
        if (!Schema::hasColumn('takes', 'own')) {
            Schema::table('takes', static fn(Blueprint $table) => $table->json('own')->nullable());
        }
        Schema::table('take_facts', static fn(Blueprint $table) => $table->string('field', 40)->change());
    }

    public function down(): void
    {
        Schema::table('takes', static fn(Blueprint $table) => $table->dropColumn('own'));
        Schema::drop('production_fields');
    }
};
