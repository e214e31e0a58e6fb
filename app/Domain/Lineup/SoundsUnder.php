<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Models\Clip;
use Cartella\Core\Time\Ticks;

/** Which recordings lie under a picture, and from where to where: one, or a further one where that does not reach. */
final class SoundsUnder
{
    private const LEAST_TICKS = Ticks::PER_SECOND;

    /**
     * @return list<array{sound: Clip, from: int, to: int}> ticks from the picture's first frame; the longest first. Two recorders
     *     that ran at once are not mixed.
     */
    public static function of(Clip $picture, Windows $windows): array
    {
        $pieces = [];
        $open = [[0, (int) $picture->duration_ticks]];
        foreach ($windows->partners($picture, 'sound') as $sound) {
            $at = $sound->placement->start_ticks - $picture->placement->start_ticks;
            $best = null;
            foreach ($open as $gap => [$from, $to]) {
                $start = max($from, $at);
                $end = min($to, $at + (int) $sound->duration_ticks);
                if ($end - $start > ($best === null ? 0 : $best[2] - $best[1])) {
                    $best = [$gap, $start, $end];
                }
            }
            if ($best === null || ($pieces !== [] && $best[2] - $best[1] < self::LEAST_TICKS)) {
                continue;
            }
            [$gap, $start, $end] = $best;
            $pieces[] = ['sound' => $sound, 'from' => $start, 'to' => $end];
            $left = [[$open[$gap][0], $start], [$end, $open[$gap][1]]];
            array_splice($open, $gap, 1, array_values(array_filter($left, static fn(array $one): bool => $one[1] > $one[0])));
        }

        return $pieces;
    }
}
