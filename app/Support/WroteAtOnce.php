<?php

declare(strict_types=1);

namespace App\Support;

/**
 * Two that wrote at once and waited for each other: the database undid what one of them had begun (deadlock, MariaDB's error 1213), and
 * it can be done again from its beginning.
 */
final class WroteAtOnce
{
    private const DEADLOCK = 1213;

    public static function isBehind(?\Throwable $trouble): bool
    {
        for (; $trouble !== null; $trouble = $trouble->getPrevious()) {
            if ($trouble instanceof \PDOException && ($trouble->errorInfo[1] ?? null) === self::DEADLOCK) {
                return true;
            }
        }

        return false;
    }
}
