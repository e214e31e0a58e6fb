<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Sound;

use Cartella\Core\Sound\Fft;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class FftTest extends TestCase
{
    /** @return array<string, array{int}> */
    public static function lengths(): array
    {
        return ['two' => [2], 'a power of four' => [16], 'a power of two only' => [32], 'long' => [1024]];
    }

    #[DataProvider('lengths')]
    public function test_it_agrees_with_the_sum_that_defines_it_and_comes_back(int $length): void
    {
        $re = $im = [];
        for ($i = 0; $i < $length; $i++) {
            $re[] = sin($i * 1.7) + 0.3 * ($i % 5);
            $im[] = cos($i * 0.9);
        }
        [$forwardRe, $forwardIm] = [$re, $im];
        Fft::ofLength($length)->forward($forwardRe, $forwardIm);
        foreach ([0, 1, intdiv($length, 2), $length - 1] as $k) {
            $sumRe = $sumIm = 0.0;
            for ($i = 0; $i < $length; $i++) {
                $angle = (-2 * M_PI * $k * $i) / $length;
                $sumRe += $re[$i] * cos($angle) - $im[$i] * sin($angle);
                $sumIm += $re[$i] * sin($angle) + $im[$i] * cos($angle);
            }
            self::assertEqualsWithDelta($sumRe, $forwardRe[$k], 1e-8);
            self::assertEqualsWithDelta($sumIm, $forwardIm[$k], 1e-8);
        }
        Fft::ofLength($length)->inverse($forwardRe, $forwardIm);
        self::assertEqualsWithDelta($re, $forwardRe, 1e-9);
        self::assertEqualsWithDelta($im, $forwardIm, 1e-9);
    }
}
