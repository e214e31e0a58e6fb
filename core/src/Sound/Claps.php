<?php

declare(strict_types=1);

namespace Cartella\Core\Sound;

use Cartella\Core\Time\Ticks;

/**
 * Offers the moments of a clip's guide sound that sound like a slate's clap: out of the quiet, at once, and gone again.
 *
 * Speech begins as suddenly but goes on; a clap has lost most of its energy a seventh of a second later. The moment is
 * the sample at which the rise begins, at 8 kHz. Cost: one pass over the samples.
 */
final class Claps
{
    /** Samples of a step, 2.5 ms. */
    private const STEP = 20;

    private const STEPS_A_SECOND = 400;

    /** Steps that are looked through at once: a minute. */
    private const STRETCH = 60 * self::STEPS_A_SECOND;

    /**
     * Ratios of energies. `before`: over the mean of the half second before it; `loudest`: over the loudest of that; `after`:
     * how much of it is gone a seventh of a second later. What is offered out of a whole clip is 19, 3 and 13 dB.
     */
    private const OFFERED = ['before' => 85.0, 'loudest' => 2.0, 'after' => 22.0];

    /** Where a clap is expected: 14, 0 and 6 dB. */
    private const EXPECTED = ['before' => 25.0, 'loudest' => 1.0, 'after' => 4.0];

    private const LEAST = 2_000.0;

    /** Two claps lie this far apart at least; of nearer ones the stronger is kept. */
    private const APART = 0.3;

    private const LIMIT = 20;

    /**
     * The one that stands out most of a stretch in which a clap is expected; fainter and noisier ones count there too.
     *
     * @param  int  $toTicks  exclusive
     * @return int|null ticks from the clip's start; null when nothing stands out
     */
    public static function strongest(GuideTrack $track, int $fromTicks, int $toTicks): ?int
    {
        return self::stretch($track, $fromTicks, $toTicks, self::EXPECTED)[0]['ticks'] ?? null;
    }

    /** @return list<array{ticks: int, strength: float}> from the clip's start, the strongest first; strength 0 to 1 */
    public static function of(GuideTrack $track): array
    {
        return self::within($track, 0, self::OFFERED);
    }

    /**
     * @param  int  $fromTicks  the stretch that is asked about, from the clip's start; what lies before it is heard as well
     * @param  array{before: float, loudest: float, after: float}  $over
     * @return list<array{ticks: int, strength: float}>
     */
    private static function stretch(GuideTrack $track, int $fromTicks, int $toTicks, array $over): array
    {
        $sample = static fn(int $ticks): int => intdiv($ticks * GuideTrack::SAMPLE_RATE, Ticks::PER_SECOND);
        $begin = max(0, $sample($fromTicks) - intdiv(GuideTrack::SAMPLE_RATE, 2));
        // A little beyond, so that what follows a clap at its end is heard.
        $length = $sample($toTicks) - $begin + intdiv(GuideTrack::SAMPLE_RATE, 2);
        $claps = self::within(GuideTrack::ofBytes($track->slice($begin, $length)), $begin, $over);

        return array_values(
            array_filter($claps, static fn(array $clap): bool => $clap['ticks'] >= $fromTicks && $clap['ticks'] < $toTicks),
        );
    }

    /**
     * @param  array{before: float, loudest: float, after: float}  $over
     * @return list<array{ticks: int, strength: float}>
     */
    private static function within(GuideTrack $track, int $begin, array $over): array
    {
        $count = intdiv($track->samples(), self::STEP);
        $before = (int) (0.5 * self::STEPS_A_SECOND);
        $found = [];
        // A stretch at a time, with what one has to have heard before it and after, so that hours take no more than minutes.
        for ($from = 0; $from < $count; $from += self::STRETCH) {
            $first = max(0, $from - $before);
            $energy = self::energy($track, $first, min($count, $from + self::STRETCH + self::STEPS_A_SECOND) - $first);
            $sum = array_sum(array_slice($energy, 0, $from - $first));
            for ($at = $from - $first, $end = min($count, $from + self::STRETCH) - $first; $at < $end; $at++) {
                $length = min($at, $before);
                $mean = $length === 0 ? 0.0 : $sum / $length;
                $value = $energy[$at];
                if (
                    $length > 8 &&
                    $value > self::LEAST &&
                    $value > $over['before'] * ($mean + 4.0) &&
                    $value >= max(0.0, ...array_slice($energy, $at + 1, 6))
                ) {
                    // The few steps right before belong to the rise itself.
                    $loudest = max(0.0, ...array_slice($energy, max(0, $at - $before), max(0, min($before, $at) - 5)));
                    $after = array_slice($energy, $at + (int) (0.14 * self::STEPS_A_SECOND), (int) (0.2 * self::STEPS_A_SECOND));
                    $tail = $after === [] ? 0.0 : array_sum($after) / count($after);
                    $burst = array_sum(array_slice($energy, $at, 8)) / 8;
                    if ($value > $over['loudest'] * $loudest && $burst > $over['after'] * ($tail + 1.0)) {
                        $ratio = 10 * log10($value / ($mean + 4.0));
                        $found[] = [
                            'at' => self::onset($track, $first + $at),
                            'strength' => round(min(1.0, max(0.0, ($ratio - 10) / 40)), 3),
                        ];
                    }
                }
                $sum += $value - ($at >= $before ? $energy[$at - $before] : 0.0);
            }
        }
        usort($found, static fn(array $x, array $y): int => $y['strength'] <=> $x['strength'] ?: $x['at'] <=> $y['at']);
        $claps = [];
        foreach ($found as $one) {
            $ticks = intdiv(($begin + $one['at']) * Ticks::PER_SECOND, GuideTrack::SAMPLE_RATE);
            foreach ($claps as $kept) {
                if (abs($kept['ticks'] - $ticks) < self::APART * Ticks::PER_SECOND) {
                    continue 2;
                }
            }
            $claps[] = ['ticks' => $ticks, 'strength' => $one['strength']];
            if (count($claps) === self::LIMIT) {
                break;
            }
        }

        return $claps;
    }

    /** The sample at which the rise to a step's burst begins: the first that goes over a fifth of its peak. */
    private static function onset(GuideTrack $track, int $step): int
    {
        $from = max(0, ($step - 3) * self::STEP);
        $values = array_values(unpack('s*', $track->slice($from, self::STEP * 6)) ?: []);
        $rises = [];
        for ($i = 1, $n = count($values); $i < $n; $i++) {
            $rises[$i] = abs($values[$i] - $values[$i - 1]);
        }
        $limit = $rises === [] ? 0 : max($rises) / 5;
        foreach ($rises as $i => $rise) {
            if ($rise >= $limit) {
                return $from + $i;
            }
        }

        return $from;
    }

    /** @return list<float> mean energy of each step's first difference, which lets the sharp through and hums stay */
    private static function energy(GuideTrack $track, int $firstStep, int $steps): array
    {
        $energy = [];
        $begin = $firstStep * self::STEP;
        $last = $begin === 0 ? 0 : unpack('s', $track->slice($begin - 1, 1))[1] ?? 0;
        for ($at = $begin, $end = $begin + $steps * self::STEP; $at < $end; $at += self::STEP * 4096) {
            $values = array_values(unpack('s*', $track->slice($at, min(self::STEP * 4096, $end - $at))) ?: []);
            $sum = 0.0;
            foreach ($values as $i => $value) {
                $rise = $value - $last;
                $sum += $rise * $rise;
                $last = $value;
                if ($i % self::STEP === self::STEP - 1) {
                    $energy[] = $sum / self::STEP;
                    $sum = 0.0;
                }
            }
        }

        return $energy;
    }
}
