<?php

declare(strict_types=1);

namespace Cartella\Core\Sound;

/**
 * Fast Fourier transform of complex data whose length is a power of two (Cooley and Tukey 1965), radix 4 with one
 * radix-2 pass where the exponent is odd, decimation in time. O(n log n); tables are kept per length.
 *
 * Real and imaginary parts are separate lists of floats, changed in place. The inverse is scaled by 1/n.
 */
final class Fft
{
    /** @var array<int, self> */
    private static array $kept = [];

    /** @var list<float> */
    private array $cos = [];

    /** @var list<float> */
    private array $sin = [];

    /** @var list<int> */
    private array $reversed = [];

    private function __construct(public readonly int $length)
    {
        for ($i = 0; $i < $length; $i++) {
            $this->cos[] = cos((2 * M_PI * $i) / $length);
            $this->sin[] = -sin((2 * M_PI * $i) / $length);
        }
        $bits = (int) round(log($length, 2));
        $this->reversed = [0];
        for ($i = 1; $i < $length; $i++) {
            $this->reversed[] = ($this->reversed[$i >> 1] >> 1) | (($i & 1) << ($bits - 1));
        }
    }

    /** The smallest power of two that holds $count values. */
    public static function lengthFor(int $count): int
    {
        $length = 2;
        while ($length < $count) {
            $length *= 2;
        }

        return $length;
    }

    public static function ofLength(int $length): self
    {
        if ($length < 2 || ($length & ($length - 1)) !== 0) {
            throw new \InvalidArgumentException('The length of a transform is a power of two.');
        }
        if (count(self::$kept) > 6 && !isset(self::$kept[$length])) {
            self::$kept = [];
        }

        return self::$kept[$length] ??= new self($length);
    }

    /**
     * @param  list<float>  $re
     * @param  list<float>  $im
     */
    public function forward(array &$re, array &$im): void
    {
        $n = $this->length;
        $reversed = $this->reversed;
        for ($i = 0; $i < $n; $i++) {
            $j = $reversed[$i];
            if ($i < $j) {
                $t = $re[$i];
                $re[$i] = $re[$j];
                $re[$j] = $t;
                $t = $im[$i];
                $im[$i] = $im[$j];
                $im[$j] = $t;
            }
        }
        $half = 1;
        if (((int) round(log($n, 2))) % 2 === 1) {
            for ($i = 0; $i < $n; $i += 2) {
                $xr = $re[$i + 1];
                $xi = $im[$i + 1];
                $re[$i + 1] = $re[$i] - $xr;
                $im[$i + 1] = $im[$i] - $xi;
                $re[$i] += $xr;
                $im[$i] += $xi;
            }
            $half = 2;
        }
        $this->passes($re, $im, $half);
    }

    /**
     * @param  list<float>  $re
     * @param  list<float>  $im
     */
    public function inverse(array &$re, array &$im): void
    {
        $this->forward($im, $re); // swapping the parts before and after turns the transform round
        $n = $this->length;
        $scale = 1 / $n;
        for ($i = 0; $i < $n; $i++) {
            $re[$i] *= $scale;
            $im[$i] *= $scale;
        }
    }

    /**
     * The radix-4 passes: two radix-2 levels in one walk, which halves the traffic through the arrays.
     *
     * @param  list<float>  $re
     * @param  list<float>  $im
     */
    private function passes(array &$re, array &$im, int $quarter): void
    {
        $n = $this->length;
        $cos = $this->cos;
        $sin = $this->sin;
        for (; $quarter < $n; $quarter *= 4) {
            $block = $quarter * 4;
            $step = intdiv($n, $block);
            for ($k = 0; $k < $quarter; $k++) {
                $w1r = $cos[$k * $step];
                $w1i = $sin[$k * $step];
                $w2r = $cos[2 * $k * $step];
                $w2i = $sin[2 * $k * $step];
                $w3r = $w1r * $w2r - $w1i * $w2i;
                $w3i = $w1r * $w2i + $w1i * $w2r;
                for ($a = $k; $a < $n; $a += $block) {
                    $b = $a + $quarter;
                    $c = $b + $quarter;
                    $d = $c + $quarter;
                    $br = $re[$b] * $w2r - $im[$b] * $w2i;
                    $bi = $re[$b] * $w2i + $im[$b] * $w2r;
                    $cr = $re[$c] * $w1r - $im[$c] * $w1i;
                    $ci = $re[$c] * $w1i + $im[$c] * $w1r;
                    $dr = $re[$d] * $w3r - $im[$d] * $w3i;
                    $di = $re[$d] * $w3i + $im[$d] * $w3r;
                    $sr = $re[$a] + $br;
                    $si = $im[$a] + $bi;
                    $tr = $re[$a] - $br;
                    $ti = $im[$a] - $bi;
                    $ur = $cr + $dr;
                    $ui = $ci + $di;
                    $vr = $cr - $dr;
                    $vi = $ci - $di;
                    $re[$a] = $sr + $ur;
                    $im[$a] = $si + $ui;
                    $re[$b] = $tr + $vi;
                    $im[$b] = $ti - $vr;
                    $re[$c] = $sr - $ur;
                    $im[$c] = $si - $ui;
                    $re[$d] = $tr - $vi;
                    $im[$d] = $ti + $vr;
                }
            }
        }
    }
}
