<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// What rules ask of takes most often. Asked first whether an earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasIndex('takes', ['production_id', 'status', 'size'])) {
            Schema::table('takes', static fn(Blueprint $columns) => $columns->index(['production_id', 'status', 'size']));
        }
        // How long each take is, without a look at its rows.
        $lengths = ['take_id', 'clip_id', 'in_ticks', 'out_ticks'];
        if (!Schema::hasIndex('take_parts', $lengths)) {
            Schema::table('take_parts', static fn(Blueprint $columns) => $columns->index($lengths, 'take_parts_lengths'));
        }
    }
};
