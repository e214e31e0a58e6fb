<?php

declare(strict_types=1);

namespace Cartella\Bench;

/** The bars of a bench: each is printed as met or missed, and a bench that missed one ends with an error. */
final class Bars
{
    private static int $missed = 0;

    /** @param  string  $line  what was measured and its bar, as it is printed */
    public static function check(string $line, bool $isMet): void
    {
        self::$missed += $isMet ? 0 : 1;
        echo $line, $isMet ? ': met' : ': MISSED', "\n";
    }

    /** @return 0|1 the exit code of the bench */
    public static function status(): int
    {
        if (self::$missed > 0) {
            fwrite(STDERR, sprintf("%d %s missed.\n", self::$missed, self::$missed === 1 ? 'bar was' : 'bars were'));
        }

        return self::$missed === 0 ? 0 : 1;
    }
}
