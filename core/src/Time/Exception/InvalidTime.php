<?php

declare(strict_types=1);

namespace Cartella\Core\Time\Exception;

use Cartella\Core\Failure;

/** A rate, label or amount of time that cannot be. */
final class InvalidTime extends Failure
{
    public static function rate(string $text): self
    {
        return new self(
            sprintf('"%s" is not a frame rate.', self::quote($text)),
            'rate.unknown',
            'Use one of 23.976, 24, 25, 29.97, 29.97df, 30, 47.952, 48, 50, 59.94, 59.94df, 60, 100, 119.88, 120.',
            ['rate' => self::quote($text)],
        );
    }

    public static function label(string $text, string $why): self
    {
        return new self(
            sprintf('"%s" is not a timecode: %s.', self::quote($text), $why),
            'timecode.invalid',
            'Write HH:MM:SS:FF, with ; before the frames for drop frame.',
            ['value' => self::quote($text)],
        );
    }

    public static function amount(string $text, string $why): self
    {
        return new self(
            sprintf('"%s" is not an amount of time: %s.', self::quote($text), $why),
            'time.invalid',
            'Write a label, or frames:N, ticks:N, seconds:N/D or samples@48000:N.',
            ['value' => self::quote($text)],
        );
    }

    public static function noDropFrame(string $rate): self
    {
        return new self(sprintf('Drop frame does not exist at %s.', $rate), 'timecode.drop', 'Drop frame is for 29.97 and 59.94 only.', [
            'rate' => $rate,
        ]);
    }
}
