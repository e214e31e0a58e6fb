<?php

declare(strict_types=1);

namespace App\Domain\Undo;

use Illuminate\Support\Facades\DB;

/** Which rows of other tables hang on a row by a foreign key, asked of the database itself, so that no table is forgotten. */
final class Dependents
{
    /** @var array<string, list<array{table: string, column: string}>> by the table that is pointed at */
    private static array $keys = [];

    /** @var array<string, array<string, string>> by the table that points */
    private static array $links = [];

    /** Of each table so many are looked at: those of the step itself may come first. */
    private const LIMIT = 500;

    /** @return \Generator<int, array{table: string, id: int, user: int|null}> */
    public static function of(string $table, int $id): \Generator
    {
        foreach (self::keysTo($table) as $key) {
            foreach (DB::table($key['table'])->where($key['column'], $id)->limit(self::LIMIT)->get() as $row) {
                yield [
                    'table' => $key['table'],
                    'id' => (int) ($row->id ?? 0),
                    'user' => isset($row->user_id) ? (int) $row->user_id : null,
                ];
            }
        }
    }

    /** @return array<string, string> the tables that a table's own foreign keys point at, by column */
    public static function links(string $table): array
    {
        $database = (string) DB::connection()->getDatabaseName();

        return self::$links["$database.$table"] ??= array_column(
            DB::select(
                'SELECT COLUMN_NAME, REFERENCED_TABLE_NAME FROM information_schema.KEY_COLUMN_USAGE WHERE TABLE_SCHEMA = ? AND ' .
                    'TABLE_NAME = ? AND REFERENCED_COLUMN_NAME = ?',
                [$database, $table, 'id'],
            ),
            'REFERENCED_TABLE_NAME',
            'COLUMN_NAME',
        );
    }

    /** @return list<array{table: string, column: string}> */
    private static function keysTo(string $table): array
    {
        $database = (string) DB::connection()->getDatabaseName();

        return self::$keys["$database.$table"] ??= array_map(
            static fn(object $row): array => ['table' => $row->TABLE_NAME, 'column' => $row->COLUMN_NAME],
            DB::select(
                'SELECT TABLE_NAME, COLUMN_NAME FROM information_schema.KEY_COLUMN_USAGE WHERE TABLE_SCHEMA = ? AND ' .
                    'REFERENCED_TABLE_SCHEMA = ? AND REFERENCED_TABLE_NAME = ? AND REFERENCED_COLUMN_NAME = ?',
                [$database, $database, $table, 'id'],
            ),
        );
    }
}
