<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\Sound\Fft;
use Cartella\Core\Sound\GuideTrack;

/**
 * Finds where one sound may lie along another, to 10 ms, by cross-correlation of their shapes over every overlap.
 *
 * Envelope and onsets travel as the two parts of one complex signal, so that a single transform correlates both.
 * Cost: n log n in the sum of the lengths.
 *
 * @internal
 */
final class CoarseSearch
{
    private const PEAKS = 4;

    /** Steps (10 ms) that two peaks lie apart at least. */
    private const APART = 25;

    /** Steps of overlap that count for nothing: keeps a chance match of two ends from scoring like a real one. */
    private const OVERLAP_BIAS = 150;

    /** @var array<string, array{list<float>, list<float>}> spectra by clip and length */
    private array $spectra = [];

    /**
     * @return list<array{lag: int, score: float}> best first; `lag` is where $b begins in $a, steps of 10 ms; `score`
     *                                             is in standard deviations of all lags
     */
    public function peaks(string $aId, GuideTrack $a, string $bId, GuideTrack $b): array
    {
        $na = $a->steps();
        $nb = $b->steps();
        $length = Fft::lengthFor($na + $nb);
        [$ar, $ai] = $this->spectrum($aId, $a, $length);
        [$br, $bi] = $this->spectrum($bId, $b, $length);
        $re = $im = [];
        for ($i = 0; $i < $length; $i++) {
            $re[] = $ar[$i] * $br[$i] + $ai[$i] * $bi[$i];
            $im[] = $ai[$i] * $br[$i] - $ar[$i] * $bi[$i];
        }
        Fft::ofLength($length)->inverse($re, $im);

        return $this->highest($re, $na, $nb, $length);
    }

    public function forget(): void
    {
        $this->spectra = [];
    }

    /** @return array{list<float>, list<float>} */
    private function spectrum(string $id, GuideTrack $track, int $length): array
    {
        $key = $length.':'.$id;
        if (! isset($this->spectra[$key])) {
            if (count($this->spectra) > 400) {
                $this->spectra = [];
            }
            [$re, $im] = $track->shape();
            $re = array_pad($re, $length, 0.0);
            $im = array_pad($im, $length, 0.0);
            Fft::ofLength($length)->forward($re, $im);
            $this->spectra[$key] = [$re, $im];
        }

        return $this->spectra[$key];
    }

    /**
     * @param  list<float>  $correlation  by lag modulo $length
     * @return list<array{lag: int, score: float}>
     */
    private function highest(array $correlation, int $na, int $nb, int $length): array
    {
        $least = min(150, intdiv(min($na, $nb), 2));
        $scores = [];
        $square = 0.0;
        for ($lag = $least - $nb, $end = $na - $least; $lag <= $end; $lag++) {
            $overlap = min($na, $lag + $nb) - max(0, $lag);
            $score = $correlation[$lag < 0 ? $lag + $length : $lag] / sqrt($overlap + self::OVERLAP_BIAS);
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
            for ($i = max(0, $best - self::APART), $end = min($count - 1, $best + self::APART); $i <= $end; $i++) {
                $scores[$i] = 0.0;
            }
        }

        return $found;
    }
}
