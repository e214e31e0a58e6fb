<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\Sound\Fft;
use Cartella\Core\Sound\GuideTrack;

/**
 * Refines a coarse place to a fraction of a sample by generalised cross-correlation with phase transform (Knapp and
 * Carter 1976) between 250 and 3400 Hz, in windows spread over the overlap, along the best straight line of drift.
 *
 * @internal
 */
final class FineSearch
{
    /** With short windows, for sound that is clear; with longer ones; and with many, for sound that is hard to hear. */
    public const QUICKLY = 0;

    public const FAIRLY = 1;

    public const CLOSELY = 2;

    /** Samples at 8 kHz searched on either side of the coarse place at least: 60 ms, half a frame at 24 fps and three steps. */
    private const REACH = 480;

    /** Samples that one window lies before the next at least, and how many there are at most. */
    private const STRETCH = 5 * GuideTrack::SAMPLE_RATE;

    private const WINDOWS = 16;

    private const LEAST_WINDOWS = 4;

    /** Samples from the line within which a window's own peak agrees: half a millisecond. */
    private const AGREES = 4.0;

    private const LOW_HZ = 250;

    private const HIGH_HZ = 3400;

    /** Clock error searched for, parts per million either way: above what two crystals show, 2 x 50. */
    private const DRIFT_PPM = 130;

    /** Shorter overlaps say nothing of drift that would be more than their own error. */
    private const DRIFT_FROM = 30 * GuideTrack::SAMPLE_RATE;

    /** Samples that count as one while the line is looked for. */
    private const COARSE = 4;

    /**
     * @param  int  $lagSteps  where $b begins in $a, steps of 10 ms
     * @param  self::QUICKLY|self::FAIRLY|self::CLOSELY  $how
     * @return array{offset: float, height: float, agreeing: int, windows: int, drift_ppm: float|null, residual: float, middle: float}|null
     *                                                                                                                     offset: samples
     *                                                                                                                     at 8 kHz at which
     *                                                                                                                     $b begins in $a;
     *                                                                                                                     height: the peak
     *                                                                                                                     in standard
     *                                                                                                                     deviations of its
     *                                                                                                                     surroundings;
     *                                                                                                                     residual: samples
     *                                                                                                                     RMS about the
     *                                                                                                                     line; middle:
     *                                                                                                                     sample of $b at
     *                                                                                                                     which the line
     *                                                                                                                     was measured;
     *                                                                                                                     null when the
     *                                                                                                                     overlap is too
     *                                                                                                                     short
     */
    public static function refine(GuideTrack $a, GuideTrack $b, int $lagSteps, int $how = self::FAIRLY): ?array
    {
        $lag = $lagSteps * GuideTrack::STEP_SAMPLES;
        $from = max(0, $lag);
        $overlap = min($a->samples(), $lag + $b->samples()) - $from;
        // What a clock may have gone astray by at either end of the overlap, and the coarse place's own error.
        $reach = min(4096, max(self::REACH, (int) ($overlap * self::DRIFT_PPM * 0.5e-6) + self::REACH));
        $length = match (true) {
            $overlap >= 4 * 16384 && ($how === self::CLOSELY || $reach > 2 * self::REACH) => 16384,
            $how === self::QUICKLY && $overlap < self::DRIFT_FROM => 4096,
            default => 8192,
        };
        if ($overlap < 12288) {
            return null;
        }
        $starts = self::windows($b, $from - $lag, $overlap, $length, $how === self::CLOSELY);
        $curves = self::curves($a, $b, $starts, $lag, $length, $reach);
        $middle = array_sum($starts) / count($starts);
        $line = self::bestLine($curves, $starts, $middle, $overlap);

        return self::measure($curves, $starts, $middle, $line, $lag, $overlap) + ['middle' => $middle + $length / 2];
    }

    /**
     * Windows at the liveliest place of each stretch of the overlap.
     *
     * @return non-empty-list<int> starts in $b, samples
     */
    private static function windows(GuideTrack $b, int $begin, int $overlap, int $length, bool $closely): array
    {
        $wanted = $closely ? self::WINDOWS : max(self::LEAST_WINDOWS, min(self::WINDOWS, intdiv($overlap, self::STRETCH)));
        $count = max(1, min($wanted, intdiv($overlap, $length)));
        $stretch = intdiv($overlap, $count);
        $starts = [];
        for ($i = 0; $i < $count; $i++) {
            $first = $begin + $i * $stretch;
            $best = $first;
            $most = -INF;
            // A long stretch is not looked through to its end: a lively second is found soon.
            $onset = $b->onset(intdiv($first, 80), intdiv(min($stretch, self::STRETCH), 80) + 1);
            for ($at = $first, $end = $first + min($stretch, self::STRETCH); $at + $length <= $end; $at += 2048) {
                $liveliness = array_sum(array_slice($onset, intdiv($at, 80) - intdiv($first, 80), intdiv($length, 80)));
                if ($liveliness > $most) {
                    $most = $liveliness;
                    $best = $at;
                }
            }
            $starts[] = $best;
        }

        return $starts;
    }

    /**
     * @param  non-empty-list<int>  $starts  in $b
     * @return non-empty-list<list<float>> for each window, by lag from -$reach to $reach: how far $a's window lies behind $b's
     */
    private static function curves(GuideTrack $a, GuideTrack $b, array $starts, int $lag, int $length, int $reach): array
    {
        $fft = Fft::ofLength($length);
        $curves = [];
        // The inverse of a spectrum that belongs to real values is real: two of them go through one transform.
        foreach (array_chunk($starts, 2) as $pair) {
            $re = $im = array_fill(0, $length, 0.0);
            foreach ($pair as $second => $start) {
                self::addSpectrum(
                    $re,
                    $im,
                    self::window($a, $start + $lag, $length),
                    self::window($b, $start, $length),
                    $fft,
                    $second === 1,
                );
            }
            $fft->inverse($re, $im);
            foreach ($pair as $second => $_) {
                $values = $second === 1 ? $im : $re;
                $curve = [];
                for ($shift = -$reach; $shift <= $reach; $shift++) {
                    $curve[] = $values[$shift < 0 ? $shift + $length : $shift];
                }
                $curves[] = $curve;
            }
        }

        return $curves;
    }

    /**
     * Adds the phases of the cross spectrum of two windows; turned by a quarter for the second of a pair.
     *
     * @param  array<int, float>  $crossRe  by frequency, 0 to length - 1
     * @param  array<int, float>  $crossIm  likewise
     * @param  list<float>  $re  samples of the first window
     * @param  list<float>  $im  samples of the second one
     */
    private static function addSpectrum(array &$crossRe, array &$crossIm, array $re, array $im, Fft $fft, bool $turned): void
    {
        $fft->forward($re, $im);
        $length = $fft->length;
        $high = intdiv(self::HIGH_HZ * $length, GuideTrack::SAMPLE_RATE);
        for ($k = intdiv(self::LOW_HZ * $length, GuideTrack::SAMPLE_RATE); $k <= $high; $k++) {
            $m = $length - $k;
            // Two real signals went in as one complex one; their spectra are its even and odd parts.
            $ar = $re[$k] + $re[$m];
            $ai = $im[$k] - $im[$m];
            $br = $im[$k] + $im[$m];
            $bi = $re[$m] - $re[$k];
            $cr = $ar * $br + $ai * $bi;
            $ci = $ai * $br - $ar * $bi;
            $size = sqrt($cr * $cr + $ci * $ci);
            if ($size > 0.0) {
                $cr /= $size;
                $ci /= $size;
                if ($turned) {
                    $crossRe[$k] -= $ci;
                    $crossIm[$k] += $cr;
                    $crossRe[$m] += $ci;
                    $crossIm[$m] += $cr;
                } else {
                    $crossRe[$k] += $cr;
                    $crossIm[$k] += $ci;
                    $crossRe[$m] += $cr;
                    $crossIm[$m] -= $ci;
                }
            }
        }
    }

    /** @return list<float> tapered samples; silence beyond the ends */
    private static function window(GuideTrack $track, int $start, int $length): array
    {
        $bytes = str_repeat("\0", 2 * max(0, min($length, -$start))) . $track->slice($start, $length);
        $values = [];
        foreach (unpack('P*', str_pad($bytes, $length * 2, "\0")) ?: [] as $four) {
            $values[] = (float) (($four << 48) >> 48);
            $values[] = (float) (($four << 32) >> 48);
            $values[] = (float) (($four << 16) >> 48);
            $values[] = (float) ($four >> 48);
        }
        $edge = intdiv($length, 8);
        for ($i = 0; $i < $edge; $i++) {
            $weight = 0.5 - 0.5 * cos((M_PI * $i) / $edge);
            $values[$i] *= $weight;
            $values[$length - 1 - $i] *= $weight;
        }

        return $values;
    }

    /**
     * The drift along which the windows' curves add up highest. Short overlaps have no drift to speak of.
     *
     * @param  non-empty-list<list<float>>  $curves
     * @param  non-empty-list<int>  $starts
     * @return array{slope: float, at: int, height: float} slope in samples a sample; `at` an index into a curve
     */
    private static function bestLine(array $curves, array $starts, float $middle, int $overlap): array
    {
        $span = max(1, end($starts) - $starts[0]);
        $slope = 0.0;
        if ($overlap > self::DRIFT_FROM && count($curves) > 2) {
            $coarse = array_map(self::coarsen(...), $curves);
            $slope = self::steepest($coarse, $starts, $middle, self::COARSE, 0.0, self::DRIFT_PPM * 1e-6, self::COARSE / $span)['slope'];
        }

        return self::steepest(
            $curves,
            $starts,
            $middle,
            1,
            $slope,
            $slope === 0.0 && $overlap <= self::DRIFT_FROM ? 0.0 : (2 * self::COARSE) / $span,
            1 / $span,
        );
    }

    /**
     * @param  non-empty-list<list<float>>  $curves
     * @param  non-empty-list<int>  $starts
     * @param  int  $unit  samples that a value of the curves stands for
     * @param  float  $about  slope around which is looked, and how far
     * @return array{slope: float, at: int, height: float} `at` an index into a curve
     */
    private static function steepest(array $curves, array $starts, float $middle, int $unit, float $about, float $most, float $step): array
    {
        $size = count($curves[0]);
        $best = ['slope' => 0.0, 'at' => intdiv($size, 2), 'height' => -INF];
        $steps = (int) floor($most / $step);
        for ($n = -$steps; $n <= $steps; $n++) {
            $slope = $about + $n * $step;
            $sum = array_fill(0, $size, 0.0);
            foreach ($curves as $w => $curve) {
                $shift = (int) round(($slope * ($starts[$w] - $middle)) / $unit);
                for ($i = max(0, -$shift), $end = min($size, $size - $shift); $i < $end; $i++) {
                    $sum[$i] += $curve[$i + $shift];
                }
            }
            $peak = max($sum);
            $at = (int) array_search($peak, $sum, true);
            $height = $peak / max(1e-12, self::spread($sum, $at, intdiv(12, $unit)));
            if ($height > $best['height']) {
                $best = ['slope' => $slope, 'at' => $at, 'height' => $height];
            }
        }

        return $best;
    }

    /**
     * @param  list<float>  $curve
     * @return list<float> the highest of each few values
     */
    private static function coarsen(array $curve): array
    {
        $coarse = [];
        for ($i = 0, $last = count($curve) - self::COARSE; $i <= $last; $i += self::COARSE) {
            $coarse[] = max($curve[$i], $curve[$i + 1], $curve[$i + 2], $curve[$i + 3]);
        }

        return $coarse;
    }

    /**
     * @param  non-empty-list<list<float>>  $curves
     * @param  non-empty-list<int>  $starts
     * @param  array{slope: float, at: int, height: float}  $line
     * @return array{offset: float, height: float, agreeing: int, windows: int, drift_ppm: float|null, residual: float}
     */
    private static function measure(array $curves, array $starts, float $middle, array $line, int $lag, int $overlap): array
    {
        $points = [];
        $agreeing = 0;
        foreach ($curves as $w => $curve) {
            $expected = $line['at'] + $line['slope'] * ($starts[$w] - $middle);
            $own = (int) array_search(max($curve), $curve, true);
            if (abs($own - $expected) <= self::AGREES) {
                $agreeing++;
            }
            $near = self::localPeak($curve, (int) round($expected));
            if (abs($near - $expected) <= self::AGREES) {
                $points[] = [$starts[$w] - $middle, $near];
            }
        }
        [$centre, $slope, $residual] = self::fit($points, $line, $overlap > self::DRIFT_FROM);
        $start = $centre - $slope * $middle; // the line at $b's first sample

        return [
            'offset' => $lag + $start - intdiv(count($curves[0]), 2),
            'height' => $line['height'],
            'agreeing' => $agreeing,
            'windows' => count($curves),
            'drift_ppm' => $overlap > self::DRIFT_FROM ? -$slope * 1e6 : null,
            'residual' => $residual,
        ];
    }

    /**
     * @param  list<array{float, float}>  $points
     * @param  array{slope: float, at: int, height: float}  $line
     * @return array{float, float, float} value at the middle, slope, RMS residual
     */
    private static function fit(array $points, array $line, bool $withSlope): array
    {
        if ($points === []) {
            return [(float) $line['at'], $line['slope'], 0.0];
        }
        $values = array_column($points, 1);
        sort($values);
        if (!$withSlope || count($points) < 3) {
            return [$values[intdiv(count($values), 2)], 0.0, 0.0];
        }
        $n = count($points);
        $mx = array_sum(array_column($points, 0)) / $n;
        $my = array_sum($values) / $n;
        $xx = $xy = 0.0;
        foreach ($points as [$x, $y]) {
            $xx += ($x - $mx) ** 2;
            $xy += ($x - $mx) * ($y - $my);
        }
        $slope = $xx > 0 ? $xy / $xx : 0.0;
        $square = 0.0;
        foreach ($points as [$x, $y]) {
            $square += ($y - $my - $slope * ($x - $mx)) ** 2;
        }

        return [$my - $slope * $mx, $slope, sqrt($square / $n)];
    }

    /**
     * The highest point within two samples, to a fraction of a sample by a parabola through it and its neighbours.
     *
     * @param  list<float>  $curve
     */
    private static function localPeak(array $curve, int $near): float
    {
        $last = count($curve) - 2;
        $at = max(1, min($last, $near));
        for ($i = max(1, $near - 4); $i <= min($last, $near + 4); $i++) {
            if ($curve[$i] > $curve[$at]) {
                $at = $i;
            }
        }
        $bend = $curve[$at - 1] - 2 * $curve[$at] + $curve[$at + 1];

        return $at + ($bend < 0 ? max(-0.5, min(0.5, (0.5 * ($curve[$at - 1] - $curve[$at + 1])) / $bend)) : 0.0);
    }

    /** @param  list<float>  $sum */
    private static function spread(array $sum, int $peak, int $without): float
    {
        $square = 0.0;
        $count = 0;
        foreach ($sum as $i => $value) {
            if (abs($i - $peak) > $without) {
                $square += $value * $value;
                $count++;
            }
        }

        return sqrt($square / max(1, $count));
    }
}
