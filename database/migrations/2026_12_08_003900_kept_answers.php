<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// What was answered to changes lately, for a page that never heard it and asks again.
return new class extends Migration {
    public function up(): void
    {
        Schema::create('kept_answers', static function (Blueprint $table): void {
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->string('name', 40)->charset('ascii');
            $table->unsignedSmallInteger('status');
            $table->mediumText('body');
            $table->timestamp('created_at')->index();
            $table->primary(['user_id', 'name']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('kept_answers');
    }
};
