<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // Every run of line-up with the places of the whole day as it left them, so that any two can be compared.
        Schema::create('lineup_runs', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->foreignId('shoot_day_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->unsignedInteger('number');
            $table->string('scope', 120);
            $table->string('ways', 80);
            $table->unsignedInteger('placed')->default(0);
            $table->unsignedInteger('sure')->default(0);
            $table->unsignedInteger('strays')->default(0);
            $table->longText('places')->nullable();
            $table->timestamp('ended_at')->nullable();
            $table->timestamps();
            $table->unique(['shoot_day_id', 'number']);
        });
        Schema::table('placements', static function (Blueprint $table): void {
            // A clip that a person took out of the line-up; runs leave it alone.
            $table->timestamp('left_out_at')->nullable()->after('locked_at');
        });
    }

    public function down(): void
    {
        Schema::table('placements', static fn(Blueprint $table) => $table->dropColumn('left_out_at'));
        Schema::drop('lineup_runs');
    }
};
