<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // Which of the recorder's channels are heard under a take, and how loud; null is its own mix, else all of them.
        Schema::table('takes', static fn(Blueprint $table) => $table->json('listening')->nullable());
        // Frames before the slate that players and reels leave out; the recording stays whole.
        Schema::table('clips', static fn(Blueprint $table) => $table->unsignedInteger('head_frames')->nullable());
    }

    public function down(): void
    {
        Schema::table('takes', static fn(Blueprint $table) => $table->dropColumn('listening'));
        Schema::table('clips', static fn(Blueprint $table) => $table->dropColumn('head_frames'));
    }
};
