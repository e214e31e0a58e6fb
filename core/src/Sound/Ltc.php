<?php

declare(strict_types=1);

namespace Cartella\Core\Sound;

use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Process;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Instant;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;

/**
 * Reads linear timecode (SMPTE ST 12-1) from one channel of sound: forwards, 24 to 30 frames, 0.9 to 1.1 times speed,
 * −3 to −40 dBFS, either polarity.
 *
 * Works at 48 kHz on 16-bit samples. A frame counts when its sync word, its digits and its neighbour agree; three in a
 * row make a reading, so that speech makes none. Cost: one pass over the samples.
 */
final class Ltc
{
    private const SAMPLE_RATE = 48_000;

    private const BITS = 80;

    /** The last 16 bits of each frame, in the order they are heard. */
    private const SYNC = 0b0011111111111101;

    /** Between the longest half bit (24 frames at 0.9) and the shortest whole one (30 at 1.1), in samples. */
    private const HALF_OR_WHOLE = 15.9;

    private const LONGEST = 34.0;

    private const SHORTEST = 6.0;

    /** Samples that are averaged: a seventh of the shortest half bit's band, so that noise above it goes. */
    private const SMOOTH = 5;

    /** A crossing counts when the signal goes on to this share of its level. */
    private const HYSTERESIS = 0.3;

    private const IN_A_ROW = 3;

    /**
     * @param  FrameRate  $rate  as counted, and as fast as it was heard where that can be told
     * @param  int  $startTicks  the time at the file's first sample
     * @param  string  $first  label of the first whole frame
     * @param  string  $last  label of the last whole frame
     * @param  int  $count  whole frames heard
     */
    private function __construct(
        public readonly FrameRate $rate,
        public readonly int $startTicks,
        public readonly string $first,
        public readonly string $last,
        public readonly int $count,
    ) {
    }

    /**
     * @param  int  $channel  from 1
     * @return self|null null where the channel carries no timecode
     *
     * @throws UnableToReadMedia if ffmpeg cannot decode the file
     */
    public static function ofFile(string $path, int $channel): ?self
    {
        $bytes = '';
        $run = Process::run(
            ['ffmpeg', '-v', 'error', '-nostdin', '-protocol_whitelist', 'file,pipe', '-i', 'file:'.$path, '-map', '0:a:0', '-af', sprintf('pan=mono|c0=c%d', $channel - 1), '-ar', (string) self::SAMPLE_RATE, '-f', 's16le', '-'],
            static function (string $piece) use (&$bytes): void {
                $bytes .= $piece;
            },
        );
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', $path, $run['error']);
        }

        return self::ofBytes($bytes);
    }

    /** @param  string  $bytes  16-bit little-endian samples at 48 kHz, one channel */
    public static function ofBytes(string $bytes): ?self
    {
        $heard = self::frames(self::crossings($bytes), intdiv(strlen($bytes), 2));
        $lengths = array_column($heard, 'length');
        if ($lengths === []) {
            return null;
        }
        sort($lengths);
        $typical = $lengths[intdiv(count($lengths), 2)];
        $isDrop = 2 * count(array_filter(array_column($heard, 'drop'))) > count($heard);
        [$rate, $frames] = [FrameRate::parse('24'), []];
        // Whatever the speed, only one rate counts over the end of a second as was heard; where none was, the length tells.
        $candidates = $isDrop ? ['29.97df'] : ['24', '25', '30'];
        usort($candidates, static fn (string $x, string $y): int => abs((float) $x - self::SAMPLE_RATE / $typical) <=> abs((float) $y - self::SAMPLE_RATE / $typical));
        foreach ($candidates as $name) {
            $chain = self::chain($heard, FrameRate::parse($name), $typical);
            if (count($chain) > count($frames)) {
                [$rate, $frames] = [FrameRate::parse($name), $chain];
            }
        }
        if (count($frames) < self::IN_A_ROW) {
            return null;
        }
        [$first, $last] = [$frames[0], $frames[count($frames) - 1]];
        $length = ($last['at'] - $first['at']) / self::steps($first['index'], $last['index'], $rate);
        $rate = self::asHeard($rate, self::SAMPLE_RATE / $length);
        $label = static fn (array $frame): string => Timecode::label($frame['index'], $rate);
        // In timecode's own time: at another speed, what lies before the first frame is as much shorter or longer.
        $before = (int) round($first['at'] / $length * $rate->den * Ticks::PER_SECOND / $rate->num);

        return new self($rate, Instant::parse($label($first), $rate) - $before, $label($first), $label($last), count($frames));
    }

    /** @return list<float> where the signal changes sides, in samples */
    private static function crossings(string $bytes): array
    {
        $crossings = [];
        $level = 0.0;
        $mean = 0.0;
        $side = 0;
        $candidate = null;
        $previous = 0.0;
        $window = array_fill(0, self::SMOOTH, 0.0);
        $sum = 0.0;
        $delay = (self::SMOOTH - 1) / 2;
        $at = 0;
        foreach (str_split($bytes, 1 << 16) as $piece) {
            foreach (unpack('s*', $piece) ?: [] as $raw) {
                $mean += ($raw - $mean) * 0.0005;
                $slot = $at % self::SMOOTH;
                $sum += $raw - $window[$slot];
                $window[$slot] = (float) $raw;
                $value = $sum / self::SMOOTH - $mean;
                $size = $value < 0 ? -$value : $value;
                $level += ($size - $level) * ($size > $level ? 0.02 : 0.002);
                if (($value < 0) !== ($previous < 0)) {
                    $span = $value - $previous;
                    $candidate = $at - $delay - ($span === 0.0 ? 0.0 : $value / $span);
                }
                $beyond = $level * self::HYSTERESIS;
                $now = $value > $beyond ? 1 : ($value < -$beyond ? -1 : $side);
                if ($now !== $side) {
                    // Where the signal sets in, its first bit begins.
                    if ($side === 0 || $candidate !== null) {
                        $crossings[] = $side === 0 ? max(0.0, $at - $delay) : $candidate;
                    }
                    $side = $now;
                    $candidate = null;
                }
                $previous = $value;
                $at++;
            }
        }

        return $crossings;
    }

    /**
     * @param  list<float>  $crossings
     * @return list<array{at: float, length: float, hours: int, minutes: int, seconds: int, frame: int, drop: bool}>
     */
    private static function frames(array $crossings, int $samples): array
    {
        // The last bit ends where the next would begin; at the end of the file nothing begins.
        if ($crossings !== [] && $samples - end($crossings) > self::SHORTEST) {
            $crossings[] = min((float) $samples, end($crossings) + self::LONGEST - 1);
        }
        $frames = [];
        $bits = [];
        $starts = [];
        $half = null;
        $sync = 0;
        $threshold = self::HALF_OR_WHOLE;
        for ($i = 1, $n = count($crossings); $i < $n; $i++) {
            $length = $crossings[$i] - $crossings[$i - 1];
            if ($length < self::SHORTEST || $length > self::LONGEST) {
                [$bits, $starts, $half, $sync] = [[], [], null, 0];

                continue;
            }
            if ($length < $threshold) {
                $threshold += ($length * 1.5 - $threshold) * 0.02;
                if ($half === null) {
                    $half = $crossings[$i - 1];

                    continue;
                }
                [$bit, $start, $half] = [1, $half, null];
            } else {
                $threshold += ($length * 0.75 - $threshold) * 0.02;
                // A half bit alone: the pairs were counted from the wrong one.
                [$bit, $start, $half] = [0, $crossings[$i - 1], null];
            }
            $bits[] = $bit;
            $starts[] = $start;
            $sync = (($sync << 1) | $bit) & 0xFFFF;
            if ($sync !== self::SYNC) {
                continue;
            }
            if (count($bits) >= self::BITS) {
                $own = array_slice($bits, -self::BITS);
                $begin = $starts[count($starts) - self::BITS];
                $frame = self::read($own);
                if ($frame !== null) {
                    $frames[] = ['at' => $begin, 'length' => $crossings[$i] - $begin] + $frame;
                }
            }
            [$bits, $starts] = [[], []];
        }

        return $frames;
    }

    /**
     * @param  list<int>  $bits
     * @return array{hours: int, minutes: int, seconds: int, frame: int, drop: bool}|null null for digits that no clock shows
     */
    private static function read(array $bits): ?array
    {
        $number = static function (int $from, int $count) use ($bits): int {
            $value = 0;
            for ($bit = 0; $bit < $count; $bit++) {
                $value |= $bits[$from + $bit] << $bit;
            }

            return $value;
        };
        $units = [$number(0, 4), $number(16, 4), $number(32, 4), $number(48, 4)];
        $tens = [$number(8, 2), $number(24, 3), $number(40, 3), $number(56, 2)];
        [$frame, $seconds, $minutes, $hours] = array_map(static fn (int $ten, int $unit): int => 10 * $ten + $unit, $tens, $units);

        return max($units) > 9 || $frame > 29 || $seconds > 59 || $minutes > 59 || $hours > 23 ? null : ['hours' => $hours, 'minutes' => $minutes, 'seconds' => $seconds, 'frame' => $frame, 'drop' => $bits[10] === 1];
    }

    /**
     * The longest run of frames that count on from each other at a rate; one or two that were misheard do not end it.
     *
     * @param  list<array{at: float, length: float, hours: int, minutes: int, seconds: int, frame: int, drop: bool}>  $frames
     * @return list<array{at: float, index: int}>
     */
    private static function chain(array $frames, FrameRate $rate, float $typical): array
    {
        $fits = static fn (?array $last, array $next): bool => $last !== null && self::steps($last['index'], $next['index'], $rate) === max(1, (int) round(($next['at'] - $last['at']) / $typical));
        $best = $chain = $other = [];
        foreach ($frames as $frame) {
            $isLeftOut = $rate->dropFrame && $frame['seconds'] === 0 && $frame['frame'] < 2 && $frame['minutes'] % 10 !== 0;
            if ($isLeftOut || $frame['frame'] >= $rate->nominal) {
                continue;
            }
            $next = ['at' => $frame['at'], 'index' => Timecode::parse(sprintf('%02d:%02d:%02d%s%02d', $frame['hours'], $frame['minutes'], $frame['seconds'], $rate->dropFrame ? ';' : ':', $frame['frame']), $rate)];
            if ($fits($chain[count($chain) - 1] ?? null, $next)) {
                $chain[] = $next;
                $other = [];

                continue;
            }
            $other = $fits($other[count($other) - 1] ?? null, $next) ? [...$other, $next] : [$next];
            if (count($other) >= self::IN_A_ROW || $chain === []) {
                $best = count($chain) > count($best) ? $chain : $best;
                [$chain, $other] = [$other, []];
            }
        }

        return count($chain) > count($best) ? $chain : $best;
    }

    /** Frames from one label to a later one; after midnight labels begin again. */
    private static function steps(int $from, int $to, FrameRate $rate): int
    {
        static $days = [];
        $days[$rate->label()] ??= 1 + Timecode::parse(sprintf('23:59:59%s%02d', $rate->dropFrame ? ';' : ':', $rate->nominal - 1), $rate);

        return $to >= $from ? $to - $from : $to - $from + $days[$rate->label()];
    }

    /** 23.976 and 29.97 count as 24 and 30 do; they are told apart where the speed is right. */
    private static function asHeard(FrameRate $rate, float $heard): FrameRate
    {
        $slow = $rate->nominal * 1000 / 1001;
        if ($rate->dropFrame || $rate->nominal === 25 || abs($heard - $slow) > 0.3 * ($rate->nominal - $slow)) {
            return $rate;
        }

        return FrameRate::parse($rate->nominal === 24 ? '23.976' : '29.97');
    }
}
