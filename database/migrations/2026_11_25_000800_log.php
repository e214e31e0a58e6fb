<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::table('takes', static function (Blueprint $table): void {
            // The small letter of a series take, rolled again without a new slate.
            $table->string('part', 1)->charset('ascii')->collation('ascii_bin')->default('')->after('take');
            $table->boolean('is_pickup')->default(false)->after('is_wild');
            $table->boolean('is_false_start')->default(false)->after('is_pickup');
            // Which source each field has its value from, and since when.
            $table->json('set_by')->nullable();
            $table->string('name', 200)->default('');
        });
        Schema::table('takes', static function (Blueprint $table): void {
            $table->unique(['shoot_day_id', 'setup', 'take', 'part'], 'takes_slate');
            $table->dropUnique(['shoot_day_id', 'setup', 'take']);
            $table->index(['shoot_day_id', 'sort_key'], 'takes_day_order');
            // Nothing asks it, and it made every edit of words slower.
            $table->dropFullText('takes_words_fulltext');
        });
        Schema::create('take_facts', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('take_id')->constrained()->cascadeOnDelete();
            $table->string('field', 20);
            $table->string('source', 8);
            $table->string('place', 190);
            $table->text('value');
            $table->timestamp('said_at');
            $table->unique(['take_id', 'field', 'source', 'place'], 'take_facts_one');
        });
        Schema::table('clips', static function (Blueprint $table): void {
            // The name that a name pattern gave; `name` stays as the file was called.
            $table->string('label', 200)->nullable()->after('name');
            $table->index(['production_id', 'label']);
        });
        Schema::table('productions', static function (Blueprint $table): void {
            $table->json('slate_patterns')->nullable();
            $table->json('name_patterns')->nullable();
            $table->string('script', 190)->default('');
        });
        Schema::table('scenes', static function (Blueprint $table): void {
            $table->json('characters')->nullable();
            $table->unsignedSmallInteger('eighths')->nullable();
            $table->unsignedSmallInteger('script_order')->nullable();
        });
        Schema::create('preferences', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->string('name', 40);
            $table->json('value');
            $table->unique(['user_id', 'production_id', 'name']);
        });
        Schema::create('note_files', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->foreignId('shoot_day_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->string('name', 190);
            $table->string('path', 190);
            $table->json('layout');
            $table->json('report')->nullable();
            // The step that it came in by, so that a run that was killed goes on in the same one.
            $table->foreignId('change_id')->nullable()->constrained()->nullOnDelete();
            $table->timestamp('applied_at')->nullable();
            $table->timestamps();
        });
        // The rows of a step that is too long for one field: an import of a whole shoot.
        Schema::create('change_rows', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('change_id')->constrained()->cascadeOnDelete();
            $table->string('table', 24);
            $table->unsignedBigInteger('row_id');
            $table->json('before')->nullable();
            $table->json('after')->nullable();
            $table->index(['change_id', 'table', 'row_id']);
        });
        Schema::create('note_layouts', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->char('signature', 32);
            $table->json('columns');
            $table->timestamps();
            $table->unique(['production_id', 'signature']);
        });
    }

    public function down(): void
    {
        foreach (['note_layouts', 'change_rows', 'note_files', 'preferences', 'take_facts'] as $table) {
            Schema::drop($table);
        }
        Schema::table('scenes', static fn(Blueprint $table) => $table->dropColumn(['characters', 'eighths', 'script_order']));
        Schema::table('productions', static fn(Blueprint $table) => $table->dropColumn(['slate_patterns', 'name_patterns', 'script']));
        Schema::table('clips', static function (Blueprint $table): void {
            $table->dropIndex(['production_id', 'label']);
            $table->dropColumn('label');
        });
        Schema::table('takes', static function (Blueprint $table): void {
            $table->unique(['shoot_day_id', 'setup', 'take']);
            $table->dropUnique('takes_slate');
            $table->dropIndex('takes_day_order');
            $table->fullText(['description', 'notes', 'keywords'], 'takes_words_fulltext');
            $table->dropColumn(['part', 'is_pickup', 'is_false_start', 'set_by', 'name']);
        });
    }
};
