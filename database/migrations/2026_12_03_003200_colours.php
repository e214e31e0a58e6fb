<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// A colour that people give clips. Asked first whether an earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasColumn('clips', 'colour')) {
            Schema::table('clips', static fn(Blueprint $columns) => $columns->string('colour', 12)->nullable());
        }
    }
};
