<?php

declare(strict_types=1);

namespace Cartella\Core\Sound;

use Cartella\Core\Time\Ticks;

/**
 * Offers the moments of a clip's guide sound that sound like a slate's clap: out of the quiet, at once, and gone again;
 * out of hiss, over which it hardly stands; or louder and sharper than those who talk meanwhile.
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
     * how much of it is gone a seventh of a second later; `flat`: of the sound's difference to the sound, which is 2 for what
     * holds all pitches alike, as a clap does, and less for voices. What is offered out of a whole clip is 19, 3 and 13 dB.
     */
    private const OFFERED = ['before' => 85.0, 'loudest' => 2.0, 'after' => 22.0, 'flat' => 0.8];

    /**
     * Over a steady floor, where nobody speaks (`steady`: the floor's own loudest over its mean, 6.5 dB): 7, 3 and 3 dB, and back
     * on the `floor` to 2 dB.
     */
    private const IN_HISS = ['before' => 5.0, 'loudest' => 2.0, 'steady' => 4.5, 'after' => 2.0, 'floor' => 1.6, 'flat' => 0.9];

    /**
     * While somebody talks: 11, 2.5 and 8 dB, as loud as they nearly (`louder`), gone by 6 dB after a tenth of a second
     * (`soon`), and longer than one step.
     */
    private const IN_SPEECH = ['before' => 12.0, 'loudest' => 1.8, 'after' => 6.0, 'louder' => 0.6, 'soon' => 4.0, 'flat' => 1.0];

    /** Where a clap is expected: 14, 0 and 6 dB. */
    private const EXPECTED = ['before' => 25.0, 'loudest' => 1.0, 'after' => 4.0, 'flat' => 0.4];

    /** What stands out less is looked at no further. */
    private const STANDS_OUT = 4.0;

    private const LEAST = 2_000.0;

    /** Of the strongest moment's strength: what may be the slate's own. */
    private const CLEAR = 0.6;

    /** Two claps lie this far apart at least; of nearer ones the stronger is kept. */
    private const APART = 0.3;

    private const LIMIT = 20;

    /** Samples before the burst whose own steps are no rise: 30 ms. */
    private const FLOOR = 240;

    /**
     * Which of some moments, heard or seen, is the slate's: the first clear one of a stretch, of a tail slate the last.
     *
     * @param  list<array{ticks: int, strength: float}>  $moments  in any order
     * @param  int  $toTicks  exclusive
     * @return int|null its ticks; null when none lies in the stretch
     */
    public static function ofSlate(array $moments, int $fromTicks, int $toTicks, bool $isTail = false): ?int
    {
        $own = array_filter($moments, static fn(array $one): bool => $one['ticks'] >= $fromTicks && $one['ticks'] < $toTicks);
        $least = self::CLEAR * max([0.0, ...array_column($own, 'strength')]);
        $clear = array_column(array_filter($own, static fn(array $one): bool => $one['strength'] >= $least), 'ticks');
        if ($clear === []) {
            return null;
        }

        return $isTail ? max($clear) : min($clear);
    }

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
     * @param  array{before: float, loudest: float, after: float, flat: float}  $over
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
     * @param  array{before: float, loudest: float, after: float, flat: float}  $over
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
            [$energy, $power] = self::energy($track, $first, min($count, $from + self::STRETCH + self::STEPS_A_SECOND) - $first);
            $sum = array_sum(array_slice($energy, 0, $from - $first));
            for ($at = $from - $first, $end = min($count, $from + self::STRETCH) - $first; $at < $end; $at++) {
                $length = min($at, $before);
                $mean = $length === 0 ? 0.0 : $sum / $length;
                $value = $energy[$at];
                // What stands out of nothing is looked at more closely, and little else.
                if (
                    $length > 8 &&
                    $value > self::LEAST &&
                    $value > self::STANDS_OUT * $mean &&
                    $value >= max([0.0, ...array_slice($energy, max(0, $at - 6), min($at, 6)), ...array_slice($energy, $at + 1, 6)]) &&
                    self::isClap($energy, $power, $at, min($length, $before), $mean, $over)
                ) {
                    $ratio = 10 * log10($value / ($mean + 4.0));
                    $found[] = [
                        'at' => self::onset($track, $first + $at),
                        'strength' => round(min(1.0, max(0.0, ($ratio - 4) / 46)), 3),
                    ];
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

    /**
     * @param  list<float>  $energy  of the first difference, by step
     * @param  list<float>  $power  of the sound itself
     * @param  int  $length  steps before it that are heard
     * @param  float  $mean  of their energy
     * @param  array{before: float, loudest: float, after: float, flat: float}  $over
     */
    private static function isClap(array $energy, array $power, int $at, int $length, float $mean, array $over): bool
    {
        $value = $energy[$at];
        // The few steps right before belong to the rise itself.
        $loudest = max([0.0, ...array_slice($energy, $at - $length, max(0, $length - 5))]);
        $after = array_slice($energy, $at + (int) (0.14 * self::STEPS_A_SECOND), (int) (0.2 * self::STEPS_A_SECOND));
        $tail = $after === [] ? 0.0 : array_sum($after) / count($after);
        $burst = array_sum(array_slice($energy, $at, 8)) / 8;
        $peak = max(array_slice($power, $at, 3));
        $flat = $value / max(1.0, $peak);
        $standsOut = static fn(array $over, float $floor): bool => $value > $over['before'] * ($mean + $floor) &&
            $value > $over['loudest'] * $loudest &&
            $burst > $over['after'] * ($tail + 1.0) &&
            $flat > $over['flat'];
        if ($standsOut($over, 4.0)) {
            return true;
        }
        if ($length <= 40) {
            return false;
        }
        if ($loudest < self::IN_HISS['steady'] * $mean && $tail < self::IN_HISS['floor'] * $mean && $standsOut(self::IN_HISS, 0.0)) {
            return true;
        }
        $soon = array_slice($power, $at + (int) (0.06 * self::STEPS_A_SECOND), (int) (0.06 * self::STEPS_A_SECOND));
        $loud = max([0.0, ...array_slice($power, $at - $length, max(0, $length - 5))]);

        return $standsOut(self::IN_SPEECH, 0.0) &&
            ($energy[$at + 1] ?? 0.0) > $value / 8 &&
            $peak > self::IN_SPEECH['louder'] * $loud &&
            ($soon === [] || $peak > (self::IN_SPEECH['soon'] * array_sum($soon)) / count($soon));
    }

    /** The sample at which the rise to a step's burst begins: the first that goes over a fifth of its peak, and over what was there. */
    private static function onset(GuideTrack $track, int $step): int
    {
        $from = max(0, ($step - 3) * self::STEP);
        $begin = max(0, $from - self::FLOOR);
        $values = array_values(unpack('s*', $track->slice($begin, self::STEP * 6 + $from - $begin)) ?: []);
        $rises = $floor = [];
        for ($i = 1, $n = count($values); $i < $n; $i++) {
            $rise = abs($values[$i] - $values[$i - 1]);
            $begin + $i < $from ? ($floor[] = $rise) : ($rises[$begin + $i] = $rise);
        }
        $peak = $rises === [] ? 0 : max($rises);
        $limit = max($peak / 5, min(0.7 * $peak, 1.1 * max([0, ...$floor])));
        foreach ($rises as $at => $rise) {
            if ($rise >= $limit) {
                return $at;
            }
        }

        return $from;
    }

    /**
     * @return array{list<float>, list<float>} of each step: mean energy of its first difference, which lets the sharp through
     *     and hums stay, and of the sound itself
     */
    private static function energy(GuideTrack $track, int $firstStep, int $steps): array
    {
        $energy = $power = [];
        $begin = $firstStep * self::STEP;
        $last = $begin === 0 ? 0 : unpack('s', $track->slice($begin - 1, 1))[1] ?? 0;
        for ($at = $begin, $end = $begin + $steps * self::STEP; $at < $end; $at += self::STEP * 4096) {
            $values = array_values(unpack('s*', $track->slice($at, min(self::STEP * 4096, $end - $at))) ?: []);
            $sum = $square = 0.0;
            foreach ($values as $i => $value) {
                $rise = $value - $last;
                $sum += $rise * $rise;
                $square += $value * $value;
                $last = $value;
                if ($i % self::STEP === self::STEP - 1) {
                    $energy[] = $sum / self::STEP;
                    $power[] = $square / self::STEP;
                    $sum = $square = 0.0;
                }
            }
        }

        return [$energy, $power];
    }
}
