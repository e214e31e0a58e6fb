<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Support;

use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Timecode;

/** Linear timecode as a generator makes it: biphase mark, 80 bits a frame, edges of 40 µs; 16-bit samples at 48 kHz. */
final class LtcWriter
{
    public static function write(
        FrameRate $rate,
        string $first,
        string $last,
        float $db = -12,
        float $speed = 1.0,
        bool $invert = false,
        ?float $snr = null,
    ): string {
        $from = Timecode::parse($first, $rate);
        $count = Timecode::parse($last, $rate) - $from;
        $count += $count < 0 ? 86_400 * $rate->nominal : 0;
        $bit = (48_000 * $rate->den) / $rate->num / 80 / $speed;
        $amplitude = 32_767 * 10 ** ($db / 20);
        $noise = $snr === null ? 0.0 : $amplitude * 10 ** (-$snr / 20);
        $edges = [];
        $at = 0.0;
        for ($frame = 0; $frame <= $count; $frame++) {
            foreach (self::bits(Timecode::label($from + $frame, $rate), $rate->dropFrame) as $one) {
                $edges[] = $at;
                if ($one === 1) {
                    $edges[] = $at + $bit / 2;
                }
                $at += $bit;
            }
        }
        $samples = (int) round($at);
        mt_srand(11);
        $bytes = '';
        $side = $invert ? -1 : 1;
        $next = 0;
        $value = 0.0;
        for ($i = 0; $i < $samples; $i++) {
            while ($next < count($edges) && $edges[$next] <= $i) {
                $side = -$side;
                $next++;
            }
            // The edge takes its 40 µs, two samples.
            $value += max(-$amplitude, min($amplitude, $side * $amplitude - $value));
            $hiss =
                $noise === 0.0
                    ? 0.0
                    : $noise * sqrt(-2 * log((mt_rand() + 1) / (mt_getrandmax() + 2))) * cos((2 * M_PI * mt_rand()) / mt_getrandmax());
            $bytes .= pack('v', max(-32_768, min(32_767, (int) round($value + $hiss))) & 0xffff);
        }

        return $bytes;
    }

    /** @return list<int> */
    private static function bits(string $label, bool $drop): array
    {
        [$hours, $minutes, $seconds, $frame] = array_map(intval(...), preg_split('/[:;]/', $label) ?: []);
        $bits = array_fill(0, 80, 0);
        $put = static function (int $at, int $count, int $value) use (&$bits): void {
            for ($bit = 0; $bit < $count; $bit++) {
                $bits[$at + $bit] = ($value >> $bit) & 1;
            }
        };
        foreach (
            [[0, 8, $frame, 2], [16, 24, $seconds, 3], [32, 40, $minutes, 3], [48, 56, $hours, 2]]
            as [$units, $tens, $value, $width]
        ) {
            $put($units, 4, $value % 10);
            $put($tens, $width, intdiv($value, 10));
        }
        $bits[10] = (int) $drop;
        foreach (str_split('0011111111111101') as $at => $one) {
            $bits[64 + $at] = (int) $one;
        }

        return $bits;
    }
}
