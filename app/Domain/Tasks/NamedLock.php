<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

use Illuminate\Support\Facades\DB;

/**
 * A lock by name in the database, held by this process's connection: it goes by itself when the process is killed. Taken
 * twice by one connection it has to be let go twice.
 */
final class NamedLock
{
    /** @param  int  $seconds  to wait for it */
    public static function take(string $name, int $seconds = 0): bool
    {
        return (int) (DB::selectOne('SELECT GET_LOCK(?, ?) AS got', [self::full($name), $seconds])->got ?? 0) === 1;
    }

    public static function letGo(string $name): void
    {
        rescue(static fn() => DB::select('DO RELEASE_LOCK(?)', [self::full($name)]), report: false);
    }

    public static function isFree(string $name): bool
    {
        return (int) (DB::selectOne('SELECT IS_FREE_LOCK(?) AS free', [self::full($name)])->free ?? 1) === 1;
    }

    public static function isOurs(string $name): bool
    {
        return (int) (DB::selectOne('SELECT IS_USED_LOCK(?) = CONNECTION_ID() AS held', [self::full($name)])->held ?? 0) === 1;
    }

    /**
     * Runs the work while nobody else holds the name.
     *
     * @template T
     *
     * @param  callable(): T  $work
     * @param  int  $seconds  to wait for whoever holds it
     * @return T
     *
     * @throws TaskLost if it is held for longer
     * @throws \Throwable whatever the work throws
     */
    public static function while(string $name, callable $work, int $seconds): mixed
    {
        if (!self::take($name, $seconds)) {
            throw new TaskLost("$name is held by another worker.");
        }
        try {
            return $work();
        } finally {
            self::letGo($name);
        }
    }

    /** Names are the whole server's, and two desks may share one. */
    private static function full(string $name): string
    {
        return 'cartella.' . substr(hash('xxh64', (string) config('database.connections.mariadb.database')), 0, 8) . '.' . $name;
    }
}
