<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\Sound\GuideTrack;

/**
 * Says of a clip which of very many recordings it may have run with, by one product of two long integers.
 *
 * The envelopes of all recordings, a small signed number for each 40 ms, are the digits of one number, those of the clip
 * in reverse the digits of another; the digits of their product are the correlations at every lag (Kronecker
 * substitution). A lag belongs to the recording in which the clip's middle would lie. Cost: one multiplication by GMP,
 * which is near to n log n, for each clip; 4 bytes for each step of all recordings.
 *
 * @internal
 */
final class Screening
{
    /** Steps of 10 ms that make one of 40 ms; the fine search reaches as far. */
    private const STEP = 4;

    /** Digits lie within ±15, so that the sum over a day of them stays below 2³¹. */
    private const MOST = 15;

    /** Of a shape's byte, ±127, over so many steps. */
    private const SCALE = self::MOST / (80 * self::STEP);

    /** Bits of a digit. */
    private const BITS = 32;

    /** Values of the product by which its usual size is judged. */
    private const SAMPLE = 20_000;

    private string $digits = '';

    /** @var list<array{int, int}> first step and how many, by recording */
    private array $spans = [];

    private ?\GMP $all = null;

    /** @return int the recording's number here */
    public function add(GuideTrack $track): int
    {
        $digits = self::digits($track);
        $this->spans[] = [intdiv(strlen($this->digits), 4), intdiv(strlen($digits), 4)];
        $this->digits .= $digits;
        $this->all = null;

        return count($this->spans) - 1;
    }

    /**
     * @param  array<int, true>  $without  recordings that are not asked about
     * @return list<array{recording: int, lag: int, score: float}> the likeliest, best first; `lag` is where the clip begins in the
     *     recording, steps of 10 ms; `score` is in standard deviations of all lags
     */
    public function likeliest(GuideTrack $clip, int $count, array $without = []): array
    {
        $own = self::digits($clip);
        $steps = intdiv(strlen($own), 4);
        if ($steps === 0 || $this->spans === []) {
            return [];
        }
        $this->all ??= self::number($this->digits);
        $reversed = pack('V*', ...array_reverse(unpack('V*', $own) ?: []));
        $length = intdiv(strlen($this->digits), 4) + $steps - 1;
        // Half of its range is added to each digit, so that none is negative.
        $bias = str_repeat("\0\0\0\x80", $length);
        $product = gmp_add(gmp_mul($this->all, self::number($reversed)), self::import($bias));
        $values = str_pad(gmp_export($product, 4, GMP_LSW_FIRST | GMP_LITTLE_ENDIAN), 4 * $length, "\0");
        $usual = self::deviation($values, $length);
        $best = [];
        foreach ($this->spans as $recording => [$from, $many]) {
            if ($many === 0 || isset($without[$recording])) {
                continue;
            }
            // The value at which the clip's middle lies on the recording's first step, to its last.
            $first = $from + $steps - 1 - intdiv($steps, 2);
            $most = max(unpack('V*', substr($values, 4 * $first, 4 * $many)) ?: [0]);
            $best[] = ['recording' => $recording, 'most' => $most];
        }
        usort($best, static fn(array $x, array $y): int => $y['most'] <=> $x['most']);
        $found = [];
        foreach (array_slice($best, 0, $count) as ['recording' => $recording, 'most' => $most]) {
            [$from, $many] = $this->spans[$recording];
            $first = $from + $steps - 1 - intdiv($steps, 2);
            $at = (int) array_search($most, array_values(unpack('V*', substr($values, 4 * $first, 4 * $many)) ?: []), true);
            $found[] = [
                'recording' => $recording,
                'lag' => self::STEP * ($at - intdiv($steps, 2)),
                'score' => ($most - 0x80000000) / $usual,
            ];
        }

        return $found;
    }

    /** Root mean square of values taken evenly from all over the product. */
    private static function deviation(string $values, int $length): float
    {
        $step = max(1, intdiv($length, self::SAMPLE));
        $square = 0.0;
        $count = 0;
        for ($at = 0; $at < $length; $at += $step) {
            $value = (unpack('V', $values, 4 * $at)[1] ?? 0x80000000) - 0x80000000;
            $square += $value * $value;
            $count++;
        }

        return sqrt(max(1.0, $square / max(1, $count)));
    }

    /** @return string a digit for each 40 ms, little-endian words of 32 bits, {@see self::MOST} added to each */
    private static function digits(GuideTrack $track): string
    {
        $digits = '';
        $piece = 2048 * self::STEP;
        for ($from = 0, $steps = $track->steps(); $from < $steps; $from += $piece) {
            $bytes = $track->envelopeBytes($from, min($piece, $steps - $from));
            $values = [];
            foreach (array_chunk($bytes, self::STEP) as $four) {
                $values[] = self::MOST + (int) round(max(-self::MOST, min(self::MOST, self::SCALE * array_sum($four))));
            }
            $digits .= pack('V*', ...$values);
        }

        return $digits;
    }

    /** The number whose signed digits are those of the words, less what was added to each. */
    private static function number(string $words): \GMP
    {
        return gmp_sub(self::import($words), self::import(str_repeat(pack('V', self::MOST), intdiv(strlen($words), 4))));
    }

    private static function import(string $words): \GMP
    {
        return gmp_import($words, intdiv(self::BITS, 8), GMP_LSW_FIRST | GMP_LITTLE_ENDIAN);
    }
}
