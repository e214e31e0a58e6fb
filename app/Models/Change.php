<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/**
 * One undoable step of one person: the rows it touched, as they were and as it left them.
 *
 * @property int $id
 * @property int $production_id
 * @property int $user_id
 * @property string $label
 * @property array<mixed> $rows
 * @property \Carbon\CarbonInterface|null $undone_at
 * @property \Carbon\CarbonInterface|null $skipped_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read User $user
 */
class Change extends Model
{
    protected $guarded = [];

    protected function casts(): array
    {
        return ['rows' => 'array', 'undone_at' => 'datetime', 'skipped_at' => 'datetime'];
    }

    /** @var list<array{table: string, id: int, before: array<string, mixed>|null, after: array<string, mixed>|null}>|null read once */
    private ?array $read = null;

    /** @var array<string, list<int>>|null places in `read`, by table and id */
    private ?array $places = null;

    /** @return list<array{table: string, id: int, before: array<string, mixed>|null, after: array<string, mixed>|null}> */
    private function short(): array
    {
        return $this->read ??= $this->rows;
    }

    /**
     * Its rows in the order they were touched, or the other way round; those of a long step come in pieces.
     *
     * @return iterable<array{table: string, id: int, before: array<string, mixed>|null, after: array<string, mixed>|null}>
     */
    public function steps(bool $backwards = false): iterable
    {
        if ($this->short() !== []) {
            return $backwards ? array_reverse($this->short()) : $this->short();
        }

        return self::stored(DB::table('change_rows')->where('change_id', $this->id), $backwards);
    }

    /**
     * The rows of one table and id among them.
     *
     * @return list<array{table: string, id: int, before: array<string, mixed>|null, after: array<string, mixed>|null}>
     */
    public function stepsOf(string $table, ?int $id = null): array
    {
        if ($this->short() === []) {
            $stored = DB::table('change_rows')
                ->where('change_id', $this->id)
                ->where('table', $table)
                ->when($id !== null, static fn($query) => $query->where('row_id', $id))
                ->limit(500);

            return iterator_to_array(self::stored($stored, false), false);
        }
        if ($this->places === null) {
            foreach ($this->short() as $place => $row) {
                $this->places["{$row['table']}.{$row['id']}"][] = $place;
                $this->places[$row['table']][] = $place;
            }
        }

        return array_map(fn(int $place): array => $this->short()[$place], $this->places[$id === null ? $table : "$table.$id"] ?? []);
    }

    /** @return \Generator<int, array{table: string, id: int, before: array<string, mixed>|null, after: array<string, mixed>|null}> */
    private static function stored(Builder $query, bool $backwards): \Generator
    {
        foreach ($backwards ? $query->lazyByIdDesc(500) : $query->lazyById(500) as $row) {
            yield [
                'table' => $row->table,
                'id' => (int) $row->row_id,
                'before' => $row->before === null ? null : json_decode($row->before, true),
                'after' => $row->after === null ? null : json_decode($row->after, true),
            ];
        }
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
