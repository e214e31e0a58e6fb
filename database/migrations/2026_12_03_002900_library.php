<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// A production whose imports all productions see, and clips that stand for one of it. Each statement asks first whether an earlier,
// killed run made it.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasColumn('productions', 'is_library')) {
            Schema::table('productions', static fn(Blueprint $columns) => $columns->boolean('is_library')->default(false));
        }
        if (!Schema::hasColumn('clips', 'library_ulid')) {
            Schema::table('clips', static function (Blueprint $columns): void {
                $columns->char('library_ulid', 26)->nullable();
                $columns->unique(['production_id', 'library_ulid']);
            });
        }
    }
};
