<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

// Bins held clips only, and markers were a list in a clip's facts that stopped at 500. Each statement asks first whether an
// earlier, killed run made it.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasColumn('bin_items', 'ref')) {
            Schema::table('bin_items', static function (Blueprint $table): void {
                $table->foreignId('clip_id')->nullable()->change();
                $table->foreignId('take_id')->nullable()->after('clip_id')->constrained()->cascadeOnDelete();
                $table->foreignId('sequence_id')->nullable()->after('take_id')->constrained()->cascadeOnDelete();
                $table->foreignId('subclip_id')->nullable()->after('sequence_id')->constrained()->cascadeOnDelete();
                $table->string('ref', 255)->charset('ascii')->collation('ascii_bin')->nullable()->after('subclip_id');
            });
        }
        DB::statement(
            "UPDATE bin_items JOIN clips ON clips.id = bin_items.clip_id SET bin_items.ref = CONCAT('clip:', clips.ulid) " .
                'WHERE bin_items.ref IS NULL',
        );
        if (!Schema::hasIndex('bin_items', ['bin_id', 'ref'], 'unique')) {
            Schema::table('bin_items', static function (Blueprint $table): void {
                $table->unique(['bin_id', 'ref']);
                $table->dropUnique(['bin_id', 'clip_id']);
            });
        }
        if (!Schema::hasColumn('subclips', 'channels')) {
            Schema::table('subclips', static function (Blueprint $table): void {
                $table->bigInteger('in_ticks')->nullable()->change();
                $table->bigInteger('out_ticks')->nullable()->change();
                $table->json('channels')->nullable()->after('out_ticks');
            });
        }
        if (!Schema::hasTable('markers')) {
            Schema::create('markers', static function (Blueprint $table): void {
                $table->id();
                $table->char('ulid', 26)->unique();
                $table->foreignId('clip_id')->constrained()->cascadeOnDelete();
                $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
                $table->string('kind', 8);
                $table->bigInteger('in_ticks');
                $table->bigInteger('out_ticks')->nullable();
                $table->string('name', 160);
                $table->string('note', 1000)->default('');
                $table->timestamps();
                $table->index(['clip_id', 'in_ticks']);
            });
        }
        foreach (DB::table('clips')->where('facts', 'like', '%"markers"%')->lazyById(200) as $clip) {
            DB::transaction(static function () use ($clip): void {
                $facts = json_decode($clip->facts, true);
                $rows = [];
                foreach ($facts['markers'] ?? [] as $marker) {
                    $length = $marker['duration_ticks'] ?? null;
                    $rows[] = [
                        'ulid' => (string) \Illuminate\Support\Str::ulid(),
                        'clip_id' => $clip->id,
                        'kind' => 'file',
                        'in_ticks' => (int) $marker['ticks'],
                        'out_ticks' => $length === null ? null : (int) $marker['ticks'] + (int) $length,
                        'name' => mb_substr((string) $marker['name'], 0, 160),
                        'created_at' => $clip->created_at,
                        'updated_at' => $clip->created_at,
                    ];
                }
                DB::table('markers')->insert($rows);
                unset($facts['markers']);
                DB::table('clips')
                    ->where('id', $clip->id)
                    ->update(['facts' => json_encode($facts, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE)]);
            });
        }
        $this->steps();
    }

    /** What people put into bins, and took out, stays undoable. */
    private function steps(): void
    {
        $ulids = [];
        $with = static function (?array $values) use (&$ulids): ?array {
            $id = $values['clip_id'] ?? null;
            if ($id === null || isset($values['ref'])) {
                return $values;
            }
            $ulids[$id] ??= DB::table('clips')->where('id', $id)->value('ulid');

            return $values + ['ref' => 'clip:' . $ulids[$id]];
        };
        foreach (DB::table('changes')->where('rows', 'like', '%"bin_items"%')->lazyById(200) as $change) {
            $rows = array_map(
                static fn(array $row): array => $row['table'] === 'bin_items'
                    ? ['before' => $with($row['before']), 'after' => $with($row['after'])] + $row
                    : $row,
                json_decode($change->rows, true),
            );
            DB::table('changes')
                ->where('id', $change->id)
                ->update(['rows' => json_encode($rows, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE)]);
        }
    }
};
