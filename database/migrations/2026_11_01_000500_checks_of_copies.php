<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::table('card_copies', static function (Blueprint $table): void {
            $table->timestamp('checked_at')->nullable();
            $table->json('differences')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('card_copies', static function (Blueprint $table): void {
            $table->dropColumn(['checked_at', 'differences']);
        });
    }
};
