<?php

declare(strict_types=1);

namespace Cartella\Core\Time;

/**
 * The clock of a shooting day that may run past midnight, in ticks since the midnight that began it.
 *
 * A recorded time of day wraps at 24 hours; a night shoot does not. A time that lies more than twelve hours before the day's
 * first clip is of the night after it.
 */
final class TimeOfDay
{
    /**
     * @param  int  $ticks  since midnight, as recorded
     * @param  int  $firstTicks  start of the day's first clip on the same clock
     * @return int ticks since the midnight that began the day; above 24 h after midnight of a night shoot
     */
    public static function onDayOf(int $ticks, int $firstTicks): int
    {
        $half = intdiv(Ticks::PER_DAY, 2);

        return $firstTicks - $ticks > $half ? $ticks + Ticks::PER_DAY : $ticks;
    }

    /** BWF time reference (EBU Tech 3285): samples since midnight at the file's own rate. */
    public static function ofTimeReference(int $samples, int $sampleRate): int
    {
        return Ticks::ofSamples($samples, $sampleRate);
    }
}
