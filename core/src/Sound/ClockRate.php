<?php

declare(strict_types=1);

namespace Cartella\Core\Sound;

/**
 * How a recording is stretched so that it keeps step with a clock that runs fast or slow by some parts per million.
 *
 * Resamplers take whole rates only, and one hertz in 48 000 is 21 ppm. So the recording is taken for one whole rate and
 * resampled to another, whose ratio is the one wanted: from 1 ppm on within 0.04 ms over an hour, below that to half a ppm.
 */
final class ClockRate
{
    /** Hz. The resampler counts in parts of this, and refuses a larger one. */
    private const HIGHEST = 1_000_000;

    /**
     * Two whole rates, Hz; a second of sound that is taken for the first and resampled to the second lasts 1 + ppm · 10⁻⁶
     * seconds.
     *
     * @param  float  $ppm  positive where the clock to keep step with runs fast
     * @return array{int, int}
     */
    public static function ratio(float $ppm): array
    {
        $part = abs($ppm) * 1e-6;
        $best = [self::HIGHEST, 0];
        for ($more = 1, $least = $part; $more <= ceil($part * self::HIGHEST); $more++) {
            $from = min(self::HIGHEST, (int) round($more / $part));
            if (abs($more / $from - $part) < $least) {
                [$best, $least] = [[$from, $more], abs($more / $from - $part)];
            }
        }

        return [$best[0], $best[0] + ($ppm < 0 ? -$best[1] : $best[1])];
    }

    /** The same as a filter of ffmpeg, for sound that has the given rate, Hz, and keeps it; empty where nothing is to be done. */
    public static function filter(float $ppm, int $rate): string
    {
        [$from, $to] = self::ratio($ppm);

        return $from === $to ? '' : sprintf('asetrate=%d,aresample=%d,asetrate=%d', $from, $to, $rate);
    }
}
