<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup;

use Cartella\Core\Time\Ticks;

/**
 * Moments at which others rolled and a device did not: stretches of the day in which at least one device rolled for two seconds and
 * another not at all. A wild track, a MOS take and a false start are meant to be alone and count as no moment.
 */
final class Gaps
{
    private const LEAST_TICKS = 2 * Ticks::PER_SECOND;

    /**
     * @param  array<string, list<array{int, int, bool}>>  $lanes  by device: from, to, and whether it was meant to be alone; ticks on
     *     one clock
     * @return array<string, list<array{int, int}>> by device: from, to
     */
    public static function of(array $lanes): array
    {
        $moments = array_merge([], ...array_values($lanes));
        usort($moments, static fn(array $x, array $y): int => $x[0] <=> $y[0]);
        // What overlaps is one moment of the day.
        $merged = [];
        foreach ($moments as [$from, $to, $alone]) {
            $last = count($merged) - 1;
            if ($last >= 0 && $from < $merged[$last][1]) {
                $merged[$last] = [$merged[$last][0], max($merged[$last][1], $to), $merged[$last][2] || $alone];
            } else {
                $merged[] = [$from, $to, $alone];
            }
        }
        $gaps = [];
        foreach ($lanes as $device => $spans) {
            $gaps[$device] = [];
            usort($spans, static fn(array $x, array $y): int => $x[0] <=> $y[0]);
            $at = 0;
            foreach ($merged as [$from, $to, $alone]) {
                while ($at < count($spans) && $spans[$at][1] <= $from) {
                    $at++;
                }
                $rolled = $at < count($spans) && $spans[$at][0] < $to;
                if (!$rolled && !$alone && $to - $from > self::LEAST_TICKS) {
                    $gaps[$device][] = [$from, $to];
                }
            }
        }

        return $gaps;
    }
}
