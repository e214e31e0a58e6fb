<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

/**
 * What a worker said when it died in the middle of a task: PHP's own last error, kept in a small file beside the logs until
 * somebody asks. A worker that was ended from outside says nothing.
 */
final class LastWords
{
    private static ?string $task = null;

    private static bool $isRegistered = false;

    public static function listen(string $task): void
    {
        self::$task = $task;
        if (!self::$isRegistered) {
            self::$isRegistered = true;
            register_shutdown_function(self::write(...));
        }
    }

    public static function stop(): void
    {
        self::$task = null;
    }

    /** The sentence for a person, with a full stop. */
    public static function of(string $task): string
    {
        $words = trim((string) @file_get_contents(self::file($task)));

        return $words === '' ? 'it was ended from outside, without a word.' : rtrim(mb_substr(mb_scrub($words), 0, 200), '.') . '.';
    }

    private static function write(): void
    {
        $error = error_get_last();
        if (self::$task !== null && $error !== null && in_array($error['type'], [E_ERROR, E_CORE_ERROR, E_COMPILE_ERROR], true)) {
            // The first line alone: what follows names files of this machine.
            @file_put_contents(self::file(self::$task), strtok($error['message'], "\n"));
        }
    }

    private static function file(string $task): string
    {
        return storage_path("logs/task-$task.last");
    }
}
