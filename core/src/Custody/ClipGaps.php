<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

/** What one device shows and another does not, by their clocks. Times are ticks since midnight. */
final class ClipGaps
{
    /**
     * Clips that nothing of the other device runs beside. A device of which a clip has no time cannot be compared.
     *
     * @template T of array{start: int, length: int}
     *
     * @param  list<T>  $clips  in order of their starts
     * @param  list<array{start: int|null, length: int}>  $others  in order of their starts
     * @return list<T>
     */
    public static function of(array $clips, array $others): array
    {
        if (in_array(null, array_column($others, 'start'), true)) {
            return [];
        }
        $gaps = [];
        $next = 0;
        $latest = PHP_INT_MIN;
        foreach ($clips as $clip) {
            // Both are in order, so everything that began before this clip ends has been looked at once.
            for (; $next < count($others) && $others[$next]['start'] < $clip['start'] + $clip['length']; $next++) {
                $latest = max($latest, $others[$next]['start'] + $others[$next]['length']);
            }
            if ($latest <= $clip['start']) {
                $gaps[] = $clip;
            }
        }

        return $gaps;
    }
}
