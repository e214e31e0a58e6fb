<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// Bins that fill themselves by a rule, have a colour and a place among their neighbours; which groups the tree of a production
// shows. Each statement asks first whether an earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        foreach (['rule' => 'json', 'colour' => 'string', 'place' => 'integer'] as $column => $type) {
            if (!Schema::hasColumn('bins', $column)) {
                Schema::table(
                    'bins',
                    static fn(Blueprint $table) => match ($type) {
                        'json' => $table->json($column)->nullable(),
                        'string' => $table->string($column, 12)->nullable(),
                        default => $table->integer($column)->default(0),
                    },
                );
            }
        }
        if (!Schema::hasColumn('productions', 'bin_groups')) {
            Schema::table('productions', static fn(Blueprint $table) => $table->json('bin_groups')->nullable());
        }
        foreach (
            [
                'clips' => [['production_id', 'import_kind'], ['production_id', 'is_wild']],
                'takes' => [['production_id', 'scene', 'sort_key'], ['production_id', 'status'], ['production_id', 'setup', 'take']],
            ]
            as $table => $indexes
        ) {
            foreach ($indexes as $index) {
                if (!Schema::hasIndex($table, $index)) {
                    Schema::table($table, static fn(Blueprint $blueprint) => $blueprint->index($index));
                }
            }
        }
        // Words are found by their beginnings; what has an index of them is found at once in any amount of footage.
        foreach (
            [
                'takes' => ['description', 'notes', 'keywords', 'name'],
                'clips' => ['name', 'label'],
                'markers' => ['name', 'note'],
                'subclips' => ['name'],
            ]
            as $table => $columns
        ) {
            if (!Schema::hasIndex($table, "{$table}_words")) {
                Schema::table($table, static fn(Blueprint $blueprint) => $blueprint->fullText($columns, "{$table}_words"));
            }
        }
        // How a bin is looked at is kept by its key, which can be a long scene's.
        Schema::table('preferences', static fn(Blueprint $table) => $table->string('name', 100)->change());
    }
};
