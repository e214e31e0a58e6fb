<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

use Illuminate\Support\Facades\DB;

/**
 * Locks by name in the database, held by this process's connection: they go by themselves when the process is killed. Taken twice by
 * one connection one has to be let go twice.
 */
final class DatabaseLocks implements Locks
{
    public function take(string $name, int $seconds): bool
    {
        return (int) (DB::selectOne('SELECT GET_LOCK(?, ?) AS got', [self::full($name), $seconds])->got ?? 0) === 1;
    }

    public function letGo(string $name): void
    {
        rescue(static fn() => DB::select('DO RELEASE_LOCK(?)', [self::full($name)]), report: false);
    }

    public function isFree(string $name): bool
    {
        return (int) (DB::selectOne('SELECT IS_FREE_LOCK(?) AS free', [self::full($name)])->free ?? 1) === 1;
    }

    public function isOurs(string $name): bool
    {
        return (int) (DB::selectOne('SELECT IS_USED_LOCK(?) = CONNECTION_ID() AS held', [self::full($name)])->held ?? 0) === 1;
    }

    /** Names are the whole server's, and two desks may share one. */
    private static function full(string $name): string
    {
        return 'cartella.' . substr(hash('xxh64', (string) config('database.connections.mariadb.database')), 0, 8) . '.' . $name;
    }
}
