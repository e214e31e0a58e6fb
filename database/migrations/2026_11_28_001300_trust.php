<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;
use Illuminate\Support\Str;

// The database commits every statement on its own, so each one here asks first whether an earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        // A step that could not be taken back is passed over, so that those before it stay in reach.
        $this->add('changes', 'skipped_at', static fn(Blueprint $table) => $table->timestamp('skipped_at')->nullable()->after('undone_at'));

        $this->add('tasks', 'tries', static fn(Blueprint $table) => $table->unsignedTinyInteger('tries')->default(0)->after('state'));
        // How far it was when the last try began: a worker that dies farther on was not stopped by the task itself.
        $this->add(
            'tasks',
            'tried_at_mark',
            static fn(Blueprint $table) => $table->unsignedBigInteger('tried_at_mark')->default(0)->after('tries'),
        );
        $this->add('tasks', 'job', static fn(Blueprint $table) => $table->string('job', 64)->nullable()->after('tries'));
        // What may be worked on by one unfinished task only; the database promises it.
        $this->add('tasks', 'alone', static fn(Blueprint $table) => $table->string('alone', 80)->nullable()->unique()->after('job'));
        $this->add('tasks', 'worker', static fn(Blueprint $table) => $table->string('worker', 80)->nullable()->after('alone'));

        // The page that made a change need not fetch it again.
        $this->add('events', 'origin', static fn(Blueprint $table) => $table->string('origin', 40)->nullable()->after('facts'));

        if (!Schema::hasTable('stores')) {
            Schema::create('stores', static function (Blueprint $table): void {
                $table->id();
                $table->char('ulid', 26)->unique();
                $table->foreignId('production_id')->constrained()->cascadeOnDelete();
                $table->string('key', 40);
                $table->string('name', 60);
                $table->string('path', 400);
                // What the marker file on the volume says; another volume in the same place has another.
                $table->char('mark', 26);
                $table->unsignedSmallInteger('position')->default(0);
                $table->timestamp('retired_at')->nullable();
                $table->timestamps();
                $table->unique(['production_id', 'key']);
            });
        }
        $this->add('card_copies', 'device', static fn(Blueprint $table) => $table->unsignedBigInteger('device')->nullable()->after('path'));
        $this->add('card_copies', 'read_from', static fn(Blueprint $table) => $table->string('read_from', 8)->nullable()->after('device'));
        $this->add('cards', 'chosen_stores', static fn(Blueprint $table) => $table->json('chosen_stores')->nullable());
        $this->add('cards', 'matched_files', static fn(Blueprint $table) => $table->unsignedInteger('matched_files')->default(0));

        // Whose card a volume is; null until somebody works with it.
        $this->add(
            'volumes',
            'production_id',
            static fn(Blueprint $table) => $table->foreignId('production_id')->nullable()->constrained()->nullOnDelete(),
        );
        $this->add('volumes', 'claimed_why', static fn(Blueprint $table) => $table->string('claimed_why', 120)->nullable());

        $this->add('devices', 'colour', static fn(Blueprint $table) => $table->unsignedTinyInteger('colour')->nullable()->after('lane'));
        $this->add('devices', 'retired_at', static fn(Blueprint $table) => $table->timestamp('retired_at')->nullable()->after('colour'));

        // A person's role in one production; null where the account's own counts.
        $this->add('production_user', 'role', static fn(Blueprint $table) => $table->string('role', 20)->nullable());
        $this->add('users', 'second_factor', static fn(Blueprint $table) => $table->text('second_factor')->nullable());
        $this->add('users', 'second_factor_at', static fn(Blueprint $table) => $table->timestamp('second_factor_at')->nullable());
        $this->add(
            'users',
            'second_factor_step',
            static fn(Blueprint $table) => $table->unsignedBigInteger('second_factor_step')->nullable(),
        );
        $this->add('users', 'recovery_codes', static fn(Blueprint $table) => $table->text('recovery_codes')->nullable());
        $this->add(
            'users',
            'must_use_second_factor',
            static fn(Blueprint $table) => $table->boolean('must_use_second_factor')->default(false),
        );
        $this->add('users', 'must_change_password', static fn(Blueprint $table) => $table->boolean('must_change_password')->default(false));
        $this->add('users', 'is_demo', static fn(Blueprint $table) => $table->boolean('is_demo')->default(false));
        // Compared byte by byte: "rosá" must never sign in as "rosa".
        DB::statement('ALTER TABLE users MODIFY email VARCHAR(190) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL');

        if (!Schema::hasTable('audit')) {
            // No keys to other tables: what was written down stays as it was, whoever goes.
            Schema::create('audit', static function (Blueprint $table): void {
                $table->id();
                $table->timestamp('created_at')->useCurrent();
                $table->string('what', 40)->index();
                $table->unsignedBigInteger('user_id')->nullable();
                $table->string('who', 190);
                $table->unsignedBigInteger('production_id')->nullable()->index();
                $table->string('address', 45)->nullable();
                $table->json('facts');
            });
        }
        foreach (['update' => 'UPDATE', 'delete' => 'DELETE'] as $name => $event) {
            DB::unprepared(
                "CREATE OR REPLACE TRIGGER audit_no_$name BEFORE $event ON audit FOR EACH ROW " .
                    "SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'The audit is only ever added to.'",
            );
        }
        $this->storesOfSettings();
    }

    /** Volumes that were named in the settings file until now become each production's own. */
    private function storesOfSettings(): void
    {
        foreach (DB::table('productions')->pluck('id') as $production) {
            $position = 0;
            foreach ((array) config('cartella.stores') as $key => $store) {
                $used = DB::table('card_copies')
                    ->join('cards', 'cards.id', '=', 'card_copies.card_id')
                    ->where('cards.production_id', $production)
                    ->where('card_copies.store', $key)
                    ->exists();
                if ($used && DB::table('stores')->where('production_id', $production)->where('key', $key)->doesntExist()) {
                    DB::table('stores')->insert([
                        'ulid' => (string) Str::ulid(),
                        'production_id' => $production,
                        'key' => $key,
                        'name' => $store['name'],
                        'path' => $store['path'],
                        'mark' => $this->mark($store),
                        'position' => $position,
                        'created_at' => now(),
                        'updated_at' => now(),
                    ]);
                }
                $position++;
            }
        }
    }

    /** @param  array{name: string, path: string}  $store */
    private function mark(array $store): string
    {
        $file = $store['path'] . '/.cartella-store';
        $known = json_decode((string) @file_get_contents($file), true)['id'] ?? null;
        if (is_string($known) && strlen($known) === 26) {
            return $known;
        }
        $mark = (string) Str::ulid();
        if (is_dir($store['path'])) {
            @file_put_contents($file, json_encode(['id' => $mark, 'name' => $store['name']]) . "\n");
        }

        return $mark;
    }

    /** @param  callable(Blueprint): mixed  $column */
    private function add(string $table, string $name, callable $column): void
    {
        if (!Schema::hasColumn($table, $name)) {
            Schema::table($table, static fn(Blueprint $blueprint) => $column($blueprint));
        }
    }

    public function down(): void
    {
        DB::unprepared('DROP TRIGGER IF EXISTS audit_no_update');
        DB::unprepared('DROP TRIGGER IF EXISTS audit_no_delete');
        Schema::dropIfExists('audit');
        DB::statement('ALTER TABLE users MODIFY email VARCHAR(190) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL');
        Schema::table(
            'users',
            static fn(Blueprint $table) => $table->dropColumn([
                'second_factor',
                'second_factor_at',
                'second_factor_step',
                'recovery_codes',
                'must_use_second_factor',
                'must_change_password',
                'is_demo',
            ]),
        );
        Schema::table('production_user', static fn(Blueprint $table) => $table->dropColumn('role'));
        Schema::table('devices', static fn(Blueprint $table) => $table->dropColumn(['colour', 'retired_at']));
        Schema::table('volumes', static function (Blueprint $table): void {
            $table->dropConstrainedForeignId('production_id');
            $table->dropColumn('claimed_why');
        });
        Schema::table('cards', static fn(Blueprint $table) => $table->dropColumn(['chosen_stores', 'matched_files']));
        Schema::table('card_copies', static fn(Blueprint $table) => $table->dropColumn(['device', 'read_from']));
        Schema::dropIfExists('stores');
        Schema::table('events', static fn(Blueprint $table) => $table->dropColumn('origin'));
        Schema::table('tasks', static fn(Blueprint $table) => $table->dropColumn(['tries', 'tried_at_mark', 'job', 'alone', 'worker']));
        Schema::table('changes', static fn(Blueprint $table) => $table->dropColumn('skipped_at'));
    }
};
