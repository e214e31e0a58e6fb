<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

use Cartella\Core\Time\Ticks;

/**
 * Where a stretch of words is cut out of a sound: at the quietest moment between them and the words beside them, a fifth of a
 * second away at most. Ticks from the start of the sound.
 */
final class QuietEdges
{
    private const REACH = Ticks::PER_SECOND / 5;

    /**
     * @param  int|null  $before  where the word before them ends; null where there is none
     * @param  int|null  $after  where the word after them begins
     * @return array{int, int} start at or before `$start`, end at or after `$end`
     */
    public static function around(Levels $levels, int $start, int $end, ?int $before, ?int $after): array
    {
        $loud = $levels->loudest()->smoothed(1);
        $first = (int) max(0, $start - self::REACH, min($start, $before ?? 0));
        $last = (int) min($levels->ticks($levels->steps()), $end + self::REACH, max($end, $after ?? PHP_INT_MAX));

        return [min($start, self::quietest($loud, $first, $start, true)), max($end, self::quietest($loud, $end, max($end, $last), false))];
    }

    /** The middle of the quietest tenth, so that a stretch of even quiet is not cut at its very edge. */
    private static function quietest(Levels $levels, int $from, int $to, bool $isFirst): int
    {
        [$begin, $end] = [$levels->step($from), $levels->step($to)];
        if ($end - $begin < 2) {
            return $isFirst ? $to : $from;
        }
        $limit = $levels->share(0, 0.1, $begin, $end) + 1;
        $quiet = array_values(array_filter(range($begin, $end - 1), static fn(int $step): bool => $levels->at(0, $step) <= $limit));

        return $levels->ticks($quiet[intdiv(count($quiet), 2)]);
    }
}
