<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// Entries of the log that came in by a name of their own: one whose answer was lost on the way is sent again and counts once.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasTable('kept_entries')) {
            Schema::create('kept_entries', static function (Blueprint $table): void {
                $table->string('entry', 64);
                $table->foreignId('user_id')->constrained()->cascadeOnDelete();
                $table->timestamp('created_at')->useCurrent()->index();
                $table->primary(['user_id', 'entry']);
            });
        }
    }
};
