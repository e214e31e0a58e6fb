<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\Sound\Fft;
use Cartella\Core\Sound\GuideTrack;

/**
 * Finds where one sound may lie along another by cross-correlation of their shapes over every overlap: to 10 ms, of
 * long ones to 40 ms, which the fine search reaches across.
 *
 * Envelope and onsets travel as the two parts of one complex signal, so that a single transform correlates both.
 * Cost: n log n in the sum of the lengths.
 *
 * @internal
 */
final class CoarseSearch
{
    private const PEAKS = 8;

    /** Steps (10 ms) that two peaks lie apart at least. */
    private const APART = 25;

    /** Steps of overlap that count for nothing: keeps a chance match of two ends from scoring like a real one. */
    private const OVERLAP_BIAS = 150;

    /** The longest transform; longer sounds are looked at in coarser steps, down to a quarter. */
    private const LONGEST = 131_072;

    private const COARSEST = 4;

    /** Values of spectra that are kept for the next comparison, 16 bytes each. */
    private const KEPT = 5_000_000;

    /** @var array<string, array{list<float>, list<float>}> spectra by clip, step and length */
    private array $spectra = [];

    private int $kept = 0;

    /**
     * @return list<array{lag: int, score: float}> best first; `lag` is where $b begins in $a, steps of 10 ms; `score`
     *                                             is in standard deviations of all lags
     */
    public function peaks(string $aId, GuideTrack $a, string $bId, GuideTrack $b): array
    {
        $step = 1;
        while ($step < self::COARSEST && ($a->steps() + $b->steps()) / $step > self::LONGEST) {
            $step *= 2;
        }
        $most = self::LONGEST * $step;
        if ($a->steps() + $b->steps() <= $most) {
            return $this->within([$aId, $a, 0, $a->steps()], [$bId, $b, 0, $b->steps()], $step);
        }
        // Hours are gone through in stretches that overlap by the other one, of which a part has to do where it is as long.
        $part = min($b->steps(), intdiv($most, 2));
        $from = intdiv($b->steps() - $part, 2);
        $stretch = $most - $part;
        $found = [];
        for ($begin = 0; $begin < $a->steps(); $begin += $stretch - min($part, intdiv($stretch, 2))) {
            $own = [$aId, $a, $begin, min($stretch, $a->steps() - $begin)];
            foreach ($this->within($own, [$bId, $b, $from, $part], $step) as $peak) {
                $found[] = ['lag' => $begin + $peak['lag'] - $from, 'score' => $peak['score']];
            }
            if ($begin + $stretch >= $a->steps()) {
                break;
            }
        }
        usort($found, static fn(array $x, array $y): int => $y['score'] <=> $x['score']);

        return self::apart($found);
    }

    /**
     * @param  list<array{lag: int, score: float}>  $peaks  best first
     * @return list<array{lag: int, score: float}> without those that two stretches found both
     */
    private static function apart(array $peaks): array
    {
        $kept = [];
        foreach ($peaks as $peak) {
            foreach ($kept as $better) {
                if (abs($better['lag'] - $peak['lag']) <= self::APART) {
                    continue 2;
                }
            }
            $kept[] = $peak;
            if (count($kept) === self::PEAKS) {
                break;
            }
        }

        return $kept;
    }

    /**
     * @param  array{string, GuideTrack, int, int}  $own  a stretch: first step and how many
     * @param  array{string, GuideTrack, int, int}  $other  likewise
     * @return list<array{lag: int, score: float}> steps at which the other stretch begins in this one
     */
    private function within(array $own, array $other, int $step): array
    {
        $na = intdiv($own[3], $step);
        $nb = intdiv($other[3], $step);
        $length = Fft::lengthFor($na + $nb);
        [$ar, $ai] = $this->spectrum($own, $step, $length);
        [$br, $bi] = $this->spectrum($other, $step, $length);
        $re = $im = [];
        for ($i = 0; $i < $length; $i++) {
            $re[] = $ar[$i] * $br[$i] + $ai[$i] * $bi[$i];
            $im[] = $ai[$i] * $br[$i] - $ar[$i] * $bi[$i];
        }
        Fft::ofLength($length)->inverse($re, $im);

        return array_map(
            static fn(array $peak): array => ['lag' => $peak['lag'] * $step, 'score' => $peak['score']],
            $this->highest($re, $na, $nb, $length, $step),
        );
    }

    /**
     * @param  array{string, GuideTrack, int, int}  $stretch
     * @return array{list<float>, list<float>}
     */
    private function spectrum(array $stretch, int $step, int $length): array
    {
        [$id, $track, $from, $count] = $stretch;
        $key = "$step:$length:$from:$count:$id";
        if (!isset($this->spectra[$key])) {
            if ($this->kept > self::KEPT) {
                $this->spectra = [];
                $this->kept = 0;
            }
            $re = array_pad(self::thinned($track->envelope($from, $count), $step), $length, 0.0);
            $im = array_pad(self::thinned($track->onset($from, $count), $step), $length, 0.0);
            Fft::ofLength($length)->forward($re, $im);
            $this->spectra[$key] = [$re, $im];
            $this->kept += 2 * $length;
        }

        return $this->spectra[$key];
    }

    /**
     * @param  list<float>  $values
     * @return list<float> the means of each few
     */
    private static function thinned(array $values, int $step): array
    {
        if ($step === 1) {
            return $values;
        }
        $thin = [];
        for ($at = 0, $last = count($values) - $step; $at <= $last; $at += $step) {
            $sum = 0.0;
            for ($i = 0; $i < $step; $i++) {
                $sum += $values[$at + $i];
            }
            $thin[] = $sum / $step;
        }

        return $thin;
    }

    /**
     * @param  list<float>  $correlation  by lag modulo $length
     * @return list<array{lag: int, score: float}>
     */
    private function highest(array $correlation, int $na, int $nb, int $length, int $step): array
    {
        $least = min(intdiv(150, $step), intdiv(min($na, $nb), 2));
        $apart = max(2, intdiv(self::APART, $step));
        $scores = [];
        $square = 0.0;
        for ($lag = $least - $nb, $end = $na - $least; $lag <= $end; $lag++) {
            $overlap = min($na, $lag + $nb) - max(0, $lag);
            $score = $correlation[$lag < 0 ? $lag + $length : $lag] / sqrt($overlap + self::OVERLAP_BIAS / $step);
            $scores[] = $score;
            $square += $score * $score;
        }
        $count = count($scores);
        if ($count < 3) {
            return [];
        }
        $scale = 1 / max(1e-9, sqrt($square / $count));
        $found = [];
        while (count($found) < self::PEAKS) {
            $best = null;
            $height = 0.0;
            for ($i = 0; $i < $count; $i++) {
                if ($scores[$i] > $height) {
                    $height = $scores[$i];
                    $best = $i;
                }
            }
            if ($best === null) {
                break;
            }
            $found[] = ['lag' => $best + $least - $nb, 'score' => $height * $scale];
            for ($i = max(0, $best - $apart), $end = min($count - 1, $best + $apart); $i <= $end; $i++) {
                $scores[$i] = 0.0;
            }
        }

        return $found;
    }
}
