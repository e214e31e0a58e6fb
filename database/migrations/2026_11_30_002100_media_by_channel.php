<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

// Sound is no longer laid under proxies: players mix it. What was made by an older recipe is made anew in the background.
return new class extends Migration {
    public function up(): void
    {
        if (Schema::hasColumn('clips', 'sound_synced_at')) {
            Schema::table('clips', static fn(Blueprint $table) => $table->dropColumn('sound_synced_at'));
        }
        if (!Schema::hasColumn('clips', 'media_recipe')) {
            Schema::table('clips', static function (Blueprint $table): void {
                $table->unsignedSmallInteger('media_recipe')->default(0)->after('proxied_at');
                $table->index(['media_recipe', 'shoot_day_id']);
            });
        }
    }
};
