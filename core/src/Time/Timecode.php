<?php

declare(strict_types=1);

namespace Cartella\Core\Time;

use Cartella\Core\Time\Exception\InvalidTime;

/**
 * Labels of SMPTE ST 12-1: text to a frame count since 00:00:00:00, and back.
 *
 * Frame counts are plain integers at a {@see FrameRate}. Drop frame passes over the first labels of every minute
 * (2 at 29.97, 4 at 59.94) but none in each tenth minute; frames above 60 to the second are counted straight.
 */
final class Timecode
{
    private const PATTERN = '/\A(-?)(\d{2}):([0-5]\d):([0-5]\d)([:;.])(\d{2,3})\z/';

    /**
     * The frame that a label names.
     *
     * A `;` or `.` before the frames counts as drop frame at 29.97 and 59.94, a `:` as the rate itself says.
     *
     * @return int frames since midnight, below zero with a sign
     *
     * @throws InvalidTime if the text is not a label, names a skipped or missing one, or drops at a rate that cannot
     */
    public static function parse(string $text, FrameRate $rate): int
    {
        if (preg_match(self::PATTERN, $text, $part) !== 1) {
            throw InvalidTime::label($text, 'the form is HH:MM:SS:FF');
        }
        [, $sign, $hours, $minutes, $seconds, $separator, $frames] = $part;
        if ($separator !== ':' && !$rate->allowsDropFrame()) {
            throw InvalidTime::label($text, 'nothing is dropped at ' . $rate->name);
        }
        if ((int) $hours > 23) {
            throw InvalidTime::label($text, 'hours end at 23');
        }
        if (strlen($frames) === 3 && $rate->nominal <= 100) {
            throw InvalidTime::label($text, 'three digits of frames are for rates above 100');
        }
        if ((int) $frames >= $rate->nominal) {
            throw InvalidTime::label($text, sprintf('frames end at %d at %s', $rate->nominal - 1, $rate->name));
        }
        $counting = $separator === ':' ? $rate : $rate->withDropFrame(true);
        $drop = $counting->droppedPerMinute();
        if ((int) $frames < $drop && $seconds === '00' && (int) $minutes % 10 !== 0) {
            throw InvalidTime::label($text, 'drop frame skips this label');
        }
        $totalMinutes = 60 * (int) $hours + (int) $minutes;
        $count =
            (60 * $totalMinutes + (int) $seconds) * $rate->nominal + (int) $frames - $drop * ($totalMinutes - intdiv($totalMinutes, 10));

        return $sign === '-' ? -$count : $count;
    }

    /** The label of a frame on the 24-hour clock; counts outside a day wrap, below zero too. */
    public static function label(int $frames, FrameRate $rate): string
    {
        $day = $rate->labelsPerDay();

        return self::write((($frames % $day) + $day) % $day, $rate);
    }

    /** The label of a length: as {@see self::label}, but below zero it carries a sign instead of wrapping. */
    public static function duration(int $frames, FrameRate $rate): string
    {
        return $frames < 0 ? '-' . self::label(-$frames, $rate) : self::label($frames, $rate);
    }

    /** Feet and frames of 35 mm 4-perf film, 16 frames to the foot, such as `12+07`. */
    public static function feet(int $frames): string
    {
        return sprintf('%s%d+%02d', $frames < 0 ? '-' : '', intdiv(abs($frames), 16), abs($frames) % 16);
    }

    private static function write(int $frames, FrameRate $rate): string
    {
        $drop = $rate->droppedPerMinute();
        if ($drop > 0) {
            $minute = 60 * $rate->nominal - $drop;
            $ten = 10 * $minute + $drop; // each tenth minute keeps its labels
            $frames += $drop * (9 * intdiv($frames, $ten) + intdiv(max(0, ($frames % $ten) - $drop), $minute));
        }
        $seconds = intdiv($frames, $rate->nominal);

        return sprintf(
            '%02d:%02d:%02d%s%0' . ($rate->nominal > 100 ? 3 : 2) . 'd',
            intdiv($seconds, 3600),
            intdiv($seconds, 60) % 60,
            $seconds % 60,
            $drop > 0 ? ';' : ':',
            $frames % $rate->nominal,
        );
    }
}
