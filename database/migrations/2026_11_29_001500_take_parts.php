<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

// A clip belonged to one take at most; one recording over ten takes has ten. Each statement asks first whether an earlier,
// killed run made it.
return new class extends Migration {
    public function up(): void
    {
        if (!Schema::hasTable('take_parts')) {
            Schema::create('take_parts', static function (Blueprint $table): void {
                $table->id();
                $table->foreignId('take_id')->constrained()->cascadeOnDelete();
                $table->foreignId('clip_id')->constrained()->cascadeOnDelete();
                // From the clip's first frame; both null where all of it belongs to the take.
                $table->bigInteger('in_ticks')->nullable();
                $table->bigInteger('out_ticks')->nullable();
                $table->string('said_by', 10);
                $table->timestamps();
                $table->index(['clip_id', 'in_ticks']);
            });
        }
        if (!Schema::hasColumn('clips', 'has_no_slate')) {
            // What a person took the slate off, machines leave without one.
            Schema::table('clips', static fn(Blueprint $table) => $table->boolean('has_no_slate')->default(false)->after('device_id'));
        }
        if (!Schema::hasColumn('clips', 'take_id')) {
            return;
        }
        // A clip's one part has the clip's number, so that steps that were taken before can name it.
        DB::statement(
            'INSERT IGNORE INTO take_parts (id, take_id, clip_id, said_by, created_at, updated_at) ' .
                "SELECT id, take_id, id, COALESCE(slate_from, 'name'), created_at, updated_at FROM clips WHERE take_id IS NOT NULL",
        );
        DB::statement('ALTER TABLE take_parts AUTO_INCREMENT = ' . (1 + (int) DB::table('clips')->max('id')));
        DB::statement("UPDATE clips SET has_no_slate = 1 WHERE take_id IS NULL AND slate_from = 'person'");
        $this->steps();
        Schema::table('clips', static function (Blueprint $table): void {
            $table->dropForeign(['take_id']);
            $table->dropColumn(['take_id', 'slate_from']);
        });
    }

    public function down(): void
    {
        Schema::table('clips', static function (Blueprint $table): void {
            $table->foreignId('take_id')->nullable()->after('device_id')->constrained()->nullOnDelete();
            $table->string('slate_from', 10)->nullable()->after('take_id');
        });
        DB::statement(
            'UPDATE clips JOIN take_parts ON take_parts.clip_id = clips.id SET clips.take_id = take_parts.take_id, ' .
                'clips.slate_from = take_parts.said_by',
        );
        Schema::table('clips', static fn(Blueprint $table) => $table->dropColumn('has_no_slate'));
        Schema::drop('take_parts');
    }

    /** What people did to the takes of clips stays undoable, and stays in the takes' histories. */
    private function steps(): void
    {
        foreach (
            DB::table('changes')->where('rows', 'like', '%"take_id"%')->orWhere('rows', 'like', '%"slate_from"%')->lazyById(200)
            as $change
        ) {
            $rows = [];
            foreach (json_decode($change->rows, true) as $row) {
                array_push($rows, ...$this->split($row));
            }
            DB::table('changes')
                ->where('id', $change->id)
                ->update(['rows' => json_encode($rows, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE)]);
        }
        $text = static fn(?array $values): ?string => $values === null
            ? null
            : json_encode($values, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
        foreach (
            DB::table('change_rows')
                ->where('table', 'clips')
                ->where(
                    static fn($query) => $query
                        ->whereRaw('CONCAT(COALESCE(`before`, \'\'), COALESCE(`after`, \'\')) LIKE ?', ['%"take_id"%'])
                        ->orWhereRaw('CONCAT(COALESCE(`before`, \'\'), COALESCE(`after`, \'\')) LIKE ?', ['%"slate_from"%']),
                )
                ->lazyById(500)
            as $stored
        ) {
            $rows = $this->split([
                'table' => 'clips',
                'id' => (int) $stored->row_id,
                'before' => $stored->before === null ? null : json_decode($stored->before, true),
                'after' => $stored->after === null ? null : json_decode($stored->after, true),
            ]);
            DB::transaction(static function () use ($stored, $rows, $text): void {
                DB::table('change_rows')->where('id', $stored->id)->delete();
                foreach ($rows as $row) {
                    DB::table('change_rows')->insert([
                        'change_id' => $stored->change_id,
                        'table' => $row['table'],
                        'row_id' => $row['id'],
                        'before' => $text($row['before']),
                        'after' => $text($row['after']),
                    ]);
                }
            });
        }
    }

    /**
     * @param  array{table: string, id: int, before: array<string, mixed>|null, after: array<string, mixed>|null}  $row
     * @return list<array{table: string, id: int, before: array<string, mixed>|null, after: array<string, mixed>|null}>
     */
    private function split(array $row): array
    {
        $names = array_flip(['take_id', 'slate_from']);
        if ($row['table'] !== 'clips' || array_intersect_key(($row['before'] ?? []) + ($row['after'] ?? []), $names) === []) {
            return [$row];
        }
        $part = ['id' => $row['id'], 'clip_id' => $row['id'], 'in_ticks' => null, 'out_ticks' => null];
        $sides = $slateless = [];
        foreach (['before', 'after'] as $side) {
            $said = array_intersect_key($row[$side] ?? [], $names);
            $take = $said['take_id'] ?? null;
            $sides[$side] = $take === null ? null : ['take_id' => $take, 'said_by' => $said['slate_from'] ?? 'name'];
            $slateless[$side] = (int) ($take === null && ($said['slate_from'] ?? null) === 'person');
            $row[$side] = $row[$side] === null ? null : array_diff_key($row[$side], $names);
        }
        if ($row['before'] !== null && $row['after'] !== null && $slateless['before'] !== $slateless['after']) {
            $row['before']['has_no_slate'] = $slateless['before'];
            $row['after']['has_no_slate'] = $slateless['after'];
        }
        $rows = [];
        if ($sides['before'] !== $sides['after']) {
            [$was, $is] = [$sides['before'], $sides['after']];
            $rows[] = [
                'table' => 'take_parts',
                'id' => $row['id'],
                'before' => $was === null ? null : $was + ($is === null ? $part : []),
                'after' => $is === null ? null : $is + ($was === null ? $part : []),
            ];
        }
        // What is left of a change of the take alone is nothing; a clip that came in within the step came with its row.
        if ($row['before'] === null || $row['after'] === null || $row['before'] !== [] || $row['after'] !== []) {
            array_unshift($rows, $row);
        }

        return $rows;
    }
};
