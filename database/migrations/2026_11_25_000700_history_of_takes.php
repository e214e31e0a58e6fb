<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // Which takes a step was about, so that the history of one is found without reading every step.
        Schema::create('change_takes', static function (Blueprint $table): void {
            $table->foreignId('change_id')->constrained()->cascadeOnDelete();
            $table->unsignedBigInteger('take_id')->index();
            $table->primary(['change_id', 'take_id']);
        });
        foreach (DB::table('changes')->orderBy('id')->cursor() as $change) {
            $takes = [];
            foreach (json_decode($change->rows, true) as $row) {
                $takes[] = $row['table'] === 'takes' ? $row['id'] : null;
                array_push($takes, $row['before']['take_id'] ?? null, $row['after']['take_id'] ?? null);
            }
            foreach (array_unique(array_filter($takes)) as $take) {
                DB::table('change_takes')->insert(['change_id' => $change->id, 'take_id' => $take]);
            }
        }
    }

    public function down(): void
    {
        Schema::drop('change_takes');
    }
};
