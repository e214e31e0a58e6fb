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
    /** Samples at 8 kHz searched on either side of the coarse place: 60 ms, half a frame at 24 fps and three steps. */
    private const REACH = 480;

    private const WINDOWS = 12;

    /** Samples from the line within which a window's own peak agrees: half a millisecond. */
    private const AGREES = 4.0;

    private const LOW_HZ = 250;

    private const HIGH_HZ = 3400;

    /** Clock error searched for, parts per million either way: above what two crystals show, 2 x 50. */
    private const DRIFT_PPM = 120;

    /**
     * @param  int  $lagSteps  where $b begins in $a, steps of 10 ms
     * @return array{offset: float, height: float, agreeing: int, windows: int, drift_ppm: float|null, residual: float}|null
     *                                                                                                                     offset: samples at 8 kHz at which $b begins in $a; height: the peak in standard deviations of its
     *                                                                                                                     surroundings; residual: samples RMS about the line; null when the overlap is too short
     */
    public static function refine(GuideTrack $a, GuideTrack $b, int $lagSteps): ?array
    {
        $lag = $lagSteps * GuideTrack::STEP_SAMPLES;
        $from = max(0, $lag);
        $overlap = min($a->samples(), $lag + $b->samples()) - $from;
        $length = $overlap >= 4 * 16384 ? 16384 : 8192;
        if ($overlap < 12288) {
            return null;
        }
        $starts = self::windows($b, $from - $lag, $overlap, $length);
        $curves = [];
        foreach ($starts as $start) {
            $curves[] = self::phaseCorrelation($a, $start + $lag, $b, $start, $length);
        }
        $middle = array_sum($starts) / count($starts);
        $line = self::bestLine($curves, $starts, $middle, $overlap);

        return self::measure($curves, $starts, $middle, $line, $lag, $overlap);
    }

    /**
     * Windows at the liveliest place of each stretch of the overlap.
     *
     * @return non-empty-list<int> starts in $b, samples
     */
    private static function windows(GuideTrack $b, int $begin, int $overlap, int $length): array
    {
        $count = max(1, min(self::WINDOWS, intdiv($overlap, $length)));
        $stretch = intdiv($overlap, $count);
        $onset = $b->shape()[1];
        $starts = [];
        for ($i = 0; $i < $count; $i++) {
            $first = $begin + $i * $stretch;
            $best = $first;
            $most = -INF;
            for ($at = $first; $at + $length <= $first + $stretch; $at += 2048) {
                $liveliness = array_sum(array_slice($onset, intdiv($at, 80), intdiv($length, 80)));
                if ($liveliness > $most) {
                    $most = $liveliness;
                    $best = $at;
                }
            }
            $starts[] = $best;
        }

        return $starts;
    }

    /** @return list<float> by lag from -REACH to REACH: how far $a's window lies behind $b's */
    private static function phaseCorrelation(GuideTrack $a, int $startA, GuideTrack $b, int $startB, int $length): array
    {
        $re = self::window($a, $startA, $length);
        $im = self::window($b, $startB, $length);
        $fft = Fft::ofLength($length);
        $fft->forward($re, $im);
        $crossRe = $crossIm = array_fill(0, $length, 0.0);
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
                $crossRe[$k] = $crossRe[$m] = $cr / $size;
                $crossIm[$k] = $ci / $size;
                $crossIm[$m] = -$ci / $size;
            }
        }
        $fft->inverse($crossRe, $crossIm);
        $curve = [];
        for ($shift = -self::REACH; $shift <= self::REACH; $shift++) {
            $curve[] = $crossRe[$shift < 0 ? $shift + $length : $shift];
        }

        return $curve;
    }

    /** @return list<float> tapered samples; silence beyond the ends */
    private static function window(GuideTrack $track, int $start, int $length): array
    {
        $bytes = $start >= 0
            ? substr($track->bytes, $start * 2, $length * 2)
            : str_repeat("\0", min($length, -$start) * 2).substr($track->bytes, 0, max(0, $length + $start) * 2);
        $values = array_values(unpack('s*', str_pad($bytes, $length * 2, "\0")) ?: []);
        $edge = intdiv($length, 8);
        for ($i = 0; $i < $edge; $i++) {
            $weight = 0.5 - 0.5 * cos(M_PI * $i / $edge);
            $values[$i] *= $weight;
            $values[$length - 1 - $i] *= $weight;
        }
        foreach ($values as $i => $value) {
            $values[$i] = (float) $value;
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
        $most = self::DRIFT_PPM * 1e-6;
        $step = 2.0 / $span;
        $slopes = [0.0];
        for ($slope = $step; $slope <= $most && $overlap > 20 * GuideTrack::SAMPLE_RATE; $slope += $step) {
            array_push($slopes, $slope, -$slope);
        }
        $best = ['slope' => 0.0, 'at' => self::REACH, 'height' => -INF];
        $size = 2 * self::REACH + 1;
        foreach ($slopes as $slope) {
            $sum = array_fill(0, $size, 0.0);
            foreach ($curves as $w => $curve) {
                $shift = (int) round($slope * ($starts[$w] - $middle));
                for ($i = max(0, -$shift), $end = min($size, $size - $shift); $i < $end; $i++) {
                    $sum[$i] += $curve[$i + $shift];
                }
            }
            $peak = max($sum);
            $at = (int) array_search($peak, $sum, true);
            $height = $peak / max(1e-12, self::spread($sum, $at));
            if ($height > $best['height']) {
                $best = ['slope' => $slope, 'at' => $at, 'height' => $height];
            }
        }

        return $best;
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
        [$centre, $slope, $residual] = self::fit($points, $line, $overlap > 60 * GuideTrack::SAMPLE_RATE);
        $start = $centre - $slope * $middle; // the line at $b's first sample

        return [
            'offset' => $lag + $start - self::REACH,
            'height' => $line['height'],
            'agreeing' => $agreeing,
            'windows' => count($curves),
            'drift_ppm' => $overlap > 60 * GuideTrack::SAMPLE_RATE ? -$slope * 1e6 : null,
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
        if (! $withSlope || count($points) < 3) {
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

        return $at + ($bend < 0 ? max(-0.5, min(0.5, 0.5 * ($curve[$at - 1] - $curve[$at + 1]) / $bend)) : 0.0);
    }

    /** @param  list<float>  $sum */
    private static function spread(array $sum, int $peak): float
    {
        $square = 0.0;
        $count = 0;
        foreach ($sum as $i => $value) {
            if (abs($i - $peak) > 12) {
                $square += $value * $value;
                $count++;
            }
        }

        return sqrt($square / max(1, $count));
    }
}
