<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

/** One at a time, by a name; what keeps the names is bound as {@see Locks}. */
final class TaskLock
{
    /** @param  int  $seconds  to wait for it */
    public static function take(string $name, int $seconds = 0): bool
    {
        return app(Locks::class)->take($name, $seconds);
    }

    public static function letGo(string $name): void
    {
        app(Locks::class)->letGo($name);
    }

    public static function isFree(string $name): bool
    {
        return app(Locks::class)->isFree($name);
    }

    public static function isOurs(string $name): bool
    {
        return app(Locks::class)->isOurs($name);
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
}
