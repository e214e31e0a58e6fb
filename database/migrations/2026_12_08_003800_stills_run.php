<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Stills get a picture that runs, so that cuts can show them; the recipe of all others stays.
return new class extends Migration {
    public function up(): void
    {
        DB::table('clips')
            ->where('kind', 'still')
            ->update(['media_recipe' => 0]);
    }
};
