<?php

declare(strict_types=1);

namespace Cartella\Core\Time;

/**
 * The clock of a shooting day that may run past midnight, in ticks since the midnight that began it.
 *
 * A recorded time of day wraps at 24 hours; a night shoot does not. A day of work begins after the longest pause that its
 * clips leave on the clock's face: what lies before that is of the night after it.
 */
final class TimeOfDay
{
    /**
     * Times of one day of work in the order in which they were.
     *
     * @param  array<string, int>  $times  ticks since midnight, as recorded
     * @return array<string, int> ticks since the midnight that began the day; above 24 h after midnight of a night shoot
     */
    public static function unwrapped(array $times): array
    {
        $faces = array_map(static fn(int $time): int => (($time % Ticks::PER_DAY) + Ticks::PER_DAY) % Ticks::PER_DAY, $times);
        $sorted = array_values(array_unique($faces));
        sort($sorted);
        $count = count($sorted);
        if ($count < 2) {
            return $times;
        }
        // The pause over midnight is that of a day that does not pass it; only a longer one elsewhere says that it does.
        $first = $sorted[0];
        $longest = $sorted[0] + Ticks::PER_DAY - $sorted[$count - 1];
        for ($at = 1; $at < $count; $at++) {
            if ($longest < $sorted[$at] - $sorted[$at - 1]) {
                $longest = $sorted[$at] - $sorted[$at - 1];
                $first = $sorted[$at];
            }
        }

        return array_map(static fn(int $face): int => $face < $first ? $face + Ticks::PER_DAY : $face, $faces);
    }

    /** BWF time reference (EBU Tech 3285): samples since midnight at the file's own rate. */
    public static function ofTimeReference(int $samples, int $sampleRate): int
    {
        return Ticks::ofSamples($samples, $sampleRate);
    }
}
