<?php

declare(strict_types=1);

namespace Cartella\Core\Sound\Internal;

/**
 * Hears the frames of linear timecode (SMPTE ST 12-1) in samples that come piece by piece: 16-bit little-endian, 48 kHz,
 * one channel.
 *
 * A bit is a whole length between two crossings, or two half ones; the last 16 of a frame's 80 are its sync word.
 */
final class LtcListener
{
    private const BITS = 80;

    /** The last 16 bits of each frame, in the order they are heard. */
    private const SYNC = 0b0011111111111101;

    /** Between the longest half bit (24 frames at 0.9) and the shortest whole one (30 at 1.1), in samples. */
    private const HALF_OR_WHOLE = 15.9;

    private const LONGEST = 34.0;

    private const SHORTEST = 6.0;

    /** Samples that are averaged, so that noise above the signal's band goes. */
    private const SMOOTH = 5;

    private const DELAY = (self::SMOOTH - 1) / 2;

    /** A crossing counts when the signal goes on to this share of its level. */
    private const HYSTERESIS = 0.3;

    private string $rest = '';

    private int $at = 0;

    /** @var array<int, float> */
    private array $window;

    /** @var array{sum: float, mean: float, level: float, previous: float} */
    private array $signal = ['sum' => 0.0, 'mean' => 0.0, 'level' => 0.0, 'previous' => 0.0];

    private int $side = 0;

    private ?float $candidate = null;

    private ?float $crossing = null;

    private ?float $half = null;

    private float $threshold = self::HALF_OR_WHOLE;

    private int $sync = 0;

    /** @var list<int> */
    private array $bits = [];

    /** @var list<float> where each bit begins, in samples */
    private array $starts = [];

    /** Bytes of a frame that was heard; ten hours are a million of them. */
    private const FRAME = 21;

    private string $frames = '';

    public function __construct()
    {
        $this->window = array_fill(0, self::SMOOTH, 0.0);
    }

    public function hear(string $bytes): void
    {
        $bytes = $this->rest . $bytes;
        $this->rest = strlen($bytes) % 2 === 0 ? '' : substr($bytes, -1);
        ['sum' => $sum, 'mean' => $mean, 'level' => $level, 'previous' => $previous] = $this->signal;
        $window = $this->window;
        $at = $this->at;
        foreach (str_split($this->rest === '' ? $bytes : substr($bytes, 0, -1), 1 << 16) as $piece) {
            foreach (unpack('s*', $piece) ?: [] as $raw) {
                $mean += ($raw - $mean) * 0.0005;
                $slot = $at % self::SMOOTH;
                $sum += $raw - $window[$slot];
                $window[$slot] = (float) $raw;
                $value = $sum / self::SMOOTH - $mean;
                $size = $value < 0 ? -$value : $value;
                $level += ($size - $level) * ($size > $level ? 0.02 : 0.002);
                if ($value < 0 !== $previous < 0) {
                    $span = $value - $previous;
                    $this->candidate = $at - self::DELAY - ($span === 0.0 ? 0.0 : $value / $span);
                }
                $beyond = $level * self::HYSTERESIS;
                $now = $value > $beyond ? 1 : ($value < -$beyond ? -1 : $this->side);
                if ($now !== $this->side) {
                    // Where the signal sets in, its first bit begins.
                    $crossing = $this->side === 0 ? max(0.0, $at - self::DELAY) : $this->candidate;
                    if ($crossing !== null) {
                        $this->cross($crossing);
                    }
                    $this->side = $now;
                    $this->candidate = null;
                }
                $previous = $value;
                $at++;
            }
        }
        [$this->at, $this->window, $this->signal] = [
            $at,
            $window,
            ['sum' => $sum, 'mean' => $mean, 'level' => $level, 'previous' => $previous],
        ];
    }

    /** To be called when all is heard. */
    public function end(): void
    {
        // The last bit ends where the next would begin; at the end of the file nothing begins.
        if ($this->crossing !== null && $this->at - $this->crossing > self::SHORTEST) {
            $this->cross(min((float) $this->at, $this->crossing + self::LONGEST - 1));
        }
    }

    /** @return \Generator<int, array{at: float, length: float, hours: int, minutes: int, seconds: int, frame: int, drop: int}> samples */
    public function frames(): \Generator
    {
        for ($at = 0, $size = strlen($this->frames); $at < $size; $at += self::FRAME) {
            /** @var array{at: float, length: float, hours: int, minutes: int, seconds: int, frame: int, drop: int} $frame */
            $frame = unpack('eat/elength/Chours/Cminutes/Cseconds/Cframe/Cdrop', $this->frames, $at) ?: [];
            yield $frame;
        }
    }

    private function cross(float $crossing): void
    {
        $from = $this->crossing;
        $this->crossing = $crossing;
        if ($from === null) {
            return;
        }
        $length = $crossing - $from;
        if ($length < self::SHORTEST || $length > self::LONGEST) {
            [$this->bits, $this->starts, $this->half, $this->sync] = [[], [], null, 0];
        } elseif ($length >= $this->threshold) {
            $this->threshold += ($length * 0.75 - $this->threshold) * 0.02;
            // A half bit alone before it: the pairs were counted from the wrong one.
            $this->half = null;
            $this->bit(0, $from, $crossing);
        } else {
            $this->threshold += ($length * 1.5 - $this->threshold) * 0.02;
            $half = $this->half;
            $this->half = $half === null ? $from : null;
            if ($half !== null) {
                $this->bit(1, $half, $crossing);
            }
        }
    }

    private function bit(int $bit, float $from, float $to): void
    {
        $this->bits[] = $bit;
        $this->starts[] = $from;
        $this->sync = (($this->sync << 1) | $bit) & 0xffff;
        $count = count($this->bits);
        if ($this->sync === self::SYNC) {
            $frame = $count < self::BITS ? null : self::read(array_slice($this->bits, -self::BITS));
            if ($frame !== null) {
                $begin = $this->starts[$count - self::BITS];
                $this->frames .= pack('eeC5', $begin, $to - $begin, ...$frame);
            }
            [$this->bits, $this->starts] = [[], []];
        } elseif ($count > 4 * self::BITS) {
            // No frame is so long: what is no timecode is not kept.
            [$this->bits, $this->starts] = [array_slice($this->bits, -self::BITS), array_slice($this->starts, -self::BITS)];
        }
    }

    /**
     * @param  list<int>  $bits
     * @return array{int, int, int, int, int}|null hours, minutes, seconds, frame, drop; null for digits that no clock shows
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
        [$frame, $seconds, $minutes, $hours] = array_map(static fn(int $ten, int $unit): int => 10 * $ten + $unit, $tens, $units);

        return max($units) > 9 || $frame > 29 || $seconds > 59 || $minutes > 59 || $hours > 23
            ? null
            : [$hours, $minutes, $seconds, $frame, $bits[10]];
    }
}
