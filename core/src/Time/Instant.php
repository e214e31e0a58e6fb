<?php

declare(strict_types=1);

namespace Cartella\Core\Time;

use Cartella\Core\Time\Exception\InvalidTime;

/**
 * Reads an amount of time as the command takes it, and writes it in another unit.
 *
 * Forms: a label, `frames:N`, `ticks:N`, `seconds:` decimal or `N/D`, `samples@RATE:N`. Ticks are the value between.
 */
final class Instant
{
    private const WHOLE = '/\A-?\d{1,18}\z/';

    /**
     * @return int ticks; a fraction of a second that is not a whole tick rounds towards the past
     *
     * @throws InvalidTime if the text is none of the forms, or lies beyond what 64 bits hold
     */
    public static function parse(string $text, FrameRate $rate): int
    {
        if (preg_match('/\A(frames|ticks|seconds|samples@(\d{1,7})):(.*)\z/s', $text, $part) !== 1) {
            return Ticks::ofFrames(Timecode::parse($text, $rate), $rate);
        }
        [, $unit, $sampleRate, $amount] = $part;
        if ($unit === 'seconds') {
            return self::seconds($text, $amount);
        }
        if (preg_match(self::WHOLE, $amount) !== 1) {
            throw InvalidTime::amount($text, 'a whole number is needed');
        }
        $count = (int) $amount;
        $seconds = match ($unit) {
            'frames' => ($count * $rate->den) / $rate->num,
            'ticks' => $count / Ticks::PER_SECOND,
            default => (int) $sampleRate > 0 ? $count / (int) $sampleRate : throw InvalidTime::amount($text, 'the sample rate is zero'),
        };
        self::refuseBeyond($text, $seconds);

        return match ($unit) {
            'frames' => Ticks::ofFrames($count, $rate),
            'ticks' => $count,
            default => Ticks::ofSamples($count, (int) $sampleRate),
        };
    }

    /**
     * @param  string  $unit  `timecode`, `frames`, `ticks`, `seconds` or `samples@RATE`
     * @return int|string text for a label and for a fraction, a whole number otherwise
     *
     * @throws InvalidTime if the unit is none of these
     */
    public static function write(int $ticks, string $unit, FrameRate $rate): int|string
    {
        if (preg_match('/\Asamples@([1-9]\d{0,6})\z/', $unit, $part) === 1) {
            return Ticks::toSamples($ticks, (int) $part[1]);
        }
        $frames = Ticks::toFrames($ticks, $rate);

        return match ($unit) {
            'timecode' => Timecode::duration($frames, $rate),
            'frames' => $frames,
            'ticks' => $ticks,
            'seconds' => Ticks::toFraction($ticks),
            default => throw InvalidTime::amount($unit, 'the unit is not known'),
        };
    }

    private static function seconds(string $text, string $amount): int
    {
        if (preg_match('/\A(-?)(\d{1,12})\/(\d{1,9})\z/', $amount, $part) === 1) {
            $den = (int) $part[3];
            if ($den === 0) {
                throw InvalidTime::amount($text, 'it divides by zero');
            }
            self::refuseBeyond($text, (int) $part[2] / $den);

            return self::scaled($part[1], (int) $part[2], $den);
        }
        if (preg_match('/\A(-?)(\d{1,10})(?:\.(\d{1,9}))?\z/', $amount, $part) === 1) {
            $decimals = $part[3] ?? '';
            self::refuseBeyond($text, (float) $part[2]);
            $den = 10 ** strlen($decimals);

            return self::scaled($part[1], (int) $part[2] * $den + (int) $decimals, $den);
        }
        throw InvalidTime::amount($text, 'seconds are a decimal or a fraction N/D');
    }

    private static function scaled(string $sign, int $num, int $den): int
    {
        return Ticks::mulDivFloor($sign === '-' ? -$num : $num, Ticks::PER_SECOND, $den);
    }

    /** Ten thousand days keep every later sum within 64 bits. */
    private static function refuseBeyond(string $text, float $seconds): void
    {
        if (abs($seconds) > 864_000_000) {
            throw InvalidTime::amount($text, 'it is longer than ten thousand days');
        }
    }
}
