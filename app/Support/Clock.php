<?php

declare(strict_types=1);

namespace App\Support;

use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;

/** Ticks as people read them. */
final class Clock
{
    /** A label on the 24-hour clock at the rate given. */
    public static function label(?int $ticks, FrameRate $rate): ?string
    {
        return $ticks === null ? null : Timecode::label(Ticks::toFrames($ticks, $rate), $rate);
    }

    /** @return array{num: int, den: int, nominal: int, drop: bool, name: string} as pages know a frame rate */
    public static function rate(FrameRate $rate): array
    {
        return [
            'num' => $rate->num,
            'den' => $rate->den,
            'nominal' => $rate->nominal,
            'drop' => $rate->dropFrame,
            'name' => $rate->label(),
        ];
    }

    /** `09:48:05`, for sentences. */
    public static function time(int $ticks): string
    {
        $seconds = Ticks::floorDiv($ticks, Ticks::PER_SECOND) % 86_400;

        return sprintf('%02d:%02d:%02d', intdiv($seconds, 3600), intdiv($seconds, 60) % 60, $seconds % 60);
    }

    /** `1 s 7 f`, `3 f`: how far two clocks lie apart. */
    public static function distance(int $ticks, FrameRate $rate): string
    {
        $frames = (int) round(abs($ticks) / $rate->ticksPerFrame());
        $seconds = intdiv($frames, $rate->nominal);
        $rest = $frames % $rate->nominal;
        if ($seconds >= 3600) {
            return sprintf('%d h %02d min', intdiv($seconds, 3600), intdiv($seconds, 60) % 60);
        }

        return match (true) {
            $seconds === 0 => $rest . ' f',
            $rest === 0 => $seconds . ' s',
            default => $seconds . ' s ' . $rest . ' f',
        };
    }
}
