<?php

declare(strict_types=1);

namespace Tests\Fuzz;

use App\Support\Problem;
use Cartella\Core\CartellaException;

/** One broken input at one reader: an answer or a refusal in words, within bounds of time and memory; anything else is told. */
final class Trial
{
    /** Processor seconds; a good input takes a thousandth of it. */
    public const SECONDS = 2.0;

    /** Bytes beyond what was there before. */
    public const MEMORY = 96 << 20;

    /**
     * @param  callable(string): mixed  $read
     * @return string|null what went wrong
     */
    public static function of(callable $read, string $input): ?string
    {
        $before = memory_get_usage();
        memory_reset_peak_usage();
        $begin = self::processor();
        set_error_handler(static function (int $level, string $message, string $file, int $line): bool {
            // What a reader silences on purpose it looks at afterwards.
            return (error_reporting() & $level) === 0 ? true : throw new \ErrorException($message, 0, $level, $file, $line);
        });
        try {
            $read($input);
            $trouble = null;
        } catch (CartellaException | Problem) {
            $trouble = null;
        } catch (\Throwable $other) {
            $trouble = sprintf('%s: %s at %s:%d', $other::class, $other->getMessage(), basename($other->getFile()), $other->getLine());
        } finally {
            restore_error_handler();
        }
        $seconds = self::processor() - $begin;
        $memory = memory_get_peak_usage() - $before;

        return $trouble ??
            match (true) {
                $seconds > self::SECONDS => sprintf('it took %.1f s', $seconds),
                $memory > self::MEMORY => sprintf('it took %d MB', $memory >> 20),
                default => null,
            };
    }

    private static function processor(): float
    {
        $usage = getrusage() ?: [];

        return ($usage['ru_utime.tv_sec'] ?? 0) +
            ($usage['ru_stime.tv_sec'] ?? 0) +
            (($usage['ru_utime.tv_usec'] ?? 0) + ($usage['ru_stime.tv_usec'] ?? 0)) / 1e6;
    }
}
