<?php

declare(strict_types=1);

namespace Cartella\Core\Sound;

use Cartella\Core\Time\Ticks;

/**
 * Finds the clap of a slate in a clip's guide sound: the steepest rise of energy over what was heard just before.
 *
 * Works on steps of 10 ms, so a clap is known to half a frame at the most. Cost: one pass over the samples.
 */
final class Transients
{
    /** How much louder than the second before it a step must be, as a ratio of energies: 14 dB. */
    private const RATIO = 25.0;

    /** Steps that the quiet before a clap is measured over: half a second. */
    private const BEFORE = 50;

    /**
     * The strongest clap that begins within a stretch.
     *
     * @param  int  $fromTicks  inclusive, from the clip's start
     * @param  int  $toTicks  exclusive
     * @return int|null ticks from the clip's start; null when nothing stands out
     */
    public static function clap(GuideTrack $track, int $fromTicks, int $toTicks): ?int
    {
        $perStep = intdiv(Ticks::PER_SECOND, GuideTrack::STEP_RATE);
        $from = max(0, intdiv($fromTicks, $perStep));
        $to = min($track->steps(), intdiv($toTicks, $perStep));
        $energy = self::energy($track, max(0, $from - self::BEFORE), $to);
        $best = null;
        $bestRatio = self::RATIO;
        $sum = 0.0;
        $lead = $from - max(0, $from - self::BEFORE);
        foreach ($energy as $step => $value) {
            $count = min($step, self::BEFORE);
            if ($step >= max(5, $lead) && $count > 0) {
                $ratio = $value / ($sum / $count + 16.0);
                if ($ratio > $bestRatio && $value > 1e4) {
                    $bestRatio = $ratio;
                    $best = $step;
                }
            }
            $sum += $value - ($step >= self::BEFORE ? $energy[$step - self::BEFORE] : 0.0);
        }

        return $best === null ? null : ($best + max(0, $from - self::BEFORE)) * $perStep;
    }

    /** @return list<float> mean energy of each step's first difference */
    private static function energy(GuideTrack $track, int $from, int $to): array
    {
        $energy = [];
        for ($step = $from; $step < $to; $step++) {
            $values = unpack('s*', substr($track->bytes, $step * GuideTrack::STEP_SAMPLES * 2, GuideTrack::STEP_SAMPLES * 2)) ?: [];
            $sum = 0;
            for ($i = 2, $n = count($values); $i <= $n; $i++) {
                $rise = $values[$i] - $values[$i - 1];
                $sum += $rise * $rise;
            }
            $energy[] = $sum / max(1, count($values));
        }

        return $energy;
    }
}
