<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// Each change forgets what its person took back before; without this index it looks at all that they ever did.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasIndex('changes', ['production_id', 'user_id', 'undone_at'])) {
            Schema::table('changes', static fn(Blueprint $table) => $table->index(['production_id', 'user_id', 'undone_at']));
        }
    }
};
