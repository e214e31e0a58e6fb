<?php

declare(strict_types=1);

namespace Cartella\Core\Sound;

use Cartella\Core\Time\Ticks;

/**
 * Finds when somebody begins to speak on a clip's guide sound: something well over the floor of its minute that goes on, as no clap
 * or step does, after a while of quiet. Ticks from the clip's start, by steps of 10 ms. Cost: one pass over the samples.
 */
final class Speech
{
    private const STEP = 80;

    private const STEPS_A_SECOND = 100;

    /** Steps that share a floor: a minute. */
    private const STRETCH = 60 * self::STEPS_A_SECOND;

    /** The floor: the energy under which a fifth of the steps lie, whatever is said in the others. */
    private const FLOOR_SHARE = 0.2;

    /** Over the floor by 9 dB, and over what a microphone hisses in silence. */
    private const OVER = 8.0;

    private const LEAST = 150.0;

    /** Of so many steps that follow so many are loud. A clap rings for a tenth of a second. */
    private const WINDOW = 40;

    private const LOUD = 20;

    /** Of so many steps before it hardly any was loud: a clap's few, or a creak's. */
    private const QUIET = 50;

    private const STILL = 10;

    private const LIMIT = 500;

    /** @return list<int> ticks, in order */
    public static function starts(GuideTrack $track): array
    {
        $steps = intdiv($track->samples(), self::STEP);
        $starts = [];
        $last = -self::QUIET - 1;
        for ($from = 0; $from < $steps && count($starts) < self::LIMIT; $from += self::STRETCH) {
            // With what was before it and what follows, so that a minute's edge is no beginning.
            $first = max(0, $from - self::QUIET);
            $energy = self::energy($track, $first, min($steps, $from + self::STRETCH + self::WINDOW) - $first);
            $own = array_slice($energy, $from - $first, self::STRETCH);
            sort($own);
            $over = max(self::LEAST, self::OVER * ($own[(int) (self::FLOOR_SHARE * count($own))] ?? 0.0));
            $isLoud = array_map(static fn(float $one): int => $one > $over ? 1 : 0, $energy);
            $at = $from - $first;
            $ahead = array_sum(array_slice($isLoud, $at, self::WINDOW));
            $behind = array_sum(array_slice($isLoud, 0, $at));
            for ($end = min($at + self::STRETCH, count($energy)); $at < $end; $at++) {
                $step = $first + $at;
                if ($isLoud[$at] === 1 && $ahead >= self::LOUD && $behind <= self::STILL && $step - $last > self::QUIET) {
                    $starts[] = intdiv($step * Ticks::PER_SECOND, self::STEPS_A_SECOND);
                    $last = $step;
                }
                $ahead += ($isLoud[$at + self::WINDOW] ?? 0) - $isLoud[$at];
                $behind += $isLoud[$at] - ($isLoud[$at - self::QUIET] ?? 0);
            }
        }

        return $starts;
    }

    /**
     * The first word of a stretch.
     *
     * @param  list<int>  $starts  as {@see starts} gives them
     * @param  int  $toTicks  exclusive
     * @return int|null null where nobody begins to speak in it
     */
    public static function firstOf(array $starts, int $fromTicks, int $toTicks): ?int
    {
        foreach ($starts as $ticks) {
            if ($ticks >= $fromTicks) {
                return $ticks < $toTicks ? $ticks : null;
            }
        }

        return null;
    }

    /** @return list<float> of each step: mean energy of its first difference, which lets voices through and rumble and hum stay */
    private static function energy(GuideTrack $track, int $firstStep, int $steps): array
    {
        $energy = [];
        $end = ($firstStep + $steps) * self::STEP;
        $last = 0;
        for ($at = $firstStep * self::STEP; $at < $end; $at += self::STEP * 1024) {
            $sum = 0.0;
            foreach (array_values(unpack('s*', $track->slice($at, min(self::STEP * 1024, $end - $at))) ?: []) as $i => $value) {
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
