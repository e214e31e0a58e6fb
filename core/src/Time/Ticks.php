<?php

declare(strict_types=1);

namespace Cartella\Core\Time;

/**
 * Conversions of ticks, the one unit of position and duration: 705 600 000 to the second.
 *
 * A tick count is a plain `int`. It divides evenly into frames at every rate of {@see FrameRate} and into samples
 * at 44.1, 48, 88.2, 96 and 192 kHz; a day of ticks fits 53 bits, so JSON and JavaScript carry it exactly.
 */
final class Ticks
{
    public const PER_SECOND = 705_600_000;

    public const PER_DAY = 86_400 * self::PER_SECOND;

    /** The frame whose span holds the instant: rounds towards the past, below zero too. */
    public static function toFrames(int $ticks, FrameRate $rate): int
    {
        return self::floorDiv($ticks, $rate->ticksPerFrame());
    }

    public static function ofFrames(int $frames, FrameRate $rate): int
    {
        return $frames * $rate->ticksPerFrame();
    }

    /** The first sample at or after the instant: rounds up, so that a label found from a sample comes back. */
    public static function toSamples(int $ticks, int $sampleRate): int
    {
        return -self::mulDivFloor(-$ticks, $sampleRate, self::PER_SECOND);
    }

    /** The instant at which a sample begins; rounds towards the past where the sample rate does not divide a tick. */
    public static function ofSamples(int $samples, int $sampleRate): int
    {
        return self::mulDivFloor($samples, self::PER_SECOND, $sampleRate);
    }

    /** Nearest tick of a count of seconds that was never exact, such as a container's duration. */
    public static function ofSeconds(float $seconds): int
    {
        return (int) round($seconds * self::PER_SECOND);
    }

    /** The exact fraction of a second, in lowest terms: an integer when whole, else `N/D`. */
    public static function toFraction(int $ticks): int|string
    {
        $divisor = self::gcd(abs($ticks), self::PER_SECOND);
        $den = intdiv(self::PER_SECOND, $divisor);

        return $den === 1 ? intdiv($ticks, $divisor) : intdiv($ticks, $divisor) . '/' . $den;
    }

    public static function floorDiv(int $a, int $b): int
    {
        $quotient = intdiv($a, $b);

        return $a % $b !== 0 && $a < 0 !== $b < 0 ? $quotient - 1 : $quotient;
    }

    /**
     * floor($a * $b / $c) for $c > 0, exact without a product that leaves 64 bits: whole quotient and remainder of
     * $a / $c are multiplied apart, after the common factor of $b and $c is gone.
     */
    public static function mulDivFloor(int $a, int $b, int $c): int
    {
        $divisor = self::gcd(abs($b), $c);
        $b = intdiv($b, $divisor);
        $c = intdiv($c, $divisor);
        $whole = self::floorDiv($a, $c);

        return $whole * $b + self::floorDiv(($a - $whole * $c) * $b, $c);
    }

    private static function gcd(int $a, int $b): int
    {
        while ($b !== 0) {
            [$a, $b] = [$b, $a % $b];
        }

        return max(1, $a);
    }
}
