<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Support;

/** Seeded sound at 8 kHz, 16 bits: bursts like syllables, the same heard from further away, and a hum. */
final class Noise
{
    /** @return list<int> */
    public static function speech(int $seconds, int $seed): array
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));
        $samples = [];
        $level = 0.0;
        $left = 0;
        $last = 0.0;
        for ($i = 0, $n = $seconds * 8000; $i < $n; $i++) {
            if ($left-- <= 0) {
                $left = $random->getInt(500, 2400);
                $level = $random->getInt(0, 3) === 0 ? 0.02 : $random->getInt(20, 100) / 100;
            }
            $last = 0.55 * $last + $random->getInt(-1000, 1000) / 1000;
            $samples[] = (int) (9000 * $level * $last);
        }

        return $samples;
    }

    /**
     * @param  list<int>  $samples
     * @return list<int>
     */
    public static function heardFrom(array $samples, float $gain, int $noise, int $seed): array
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));
        $heard = [];
        $smooth = 0.0;
        foreach ($samples as $i => $sample) {
            $echo = $i >= 320 ? 0.3 * $samples[$i - 320] : 0.0;
            $smooth += 0.6 * (($sample + $echo) * $gain - $smooth);
            $heard[] = (int) max(-32768, min(32767, $smooth + $random->getInt(-$noise, $noise)));
        }

        return $heard;
    }

    /** @return list<int> */
    public static function hum(int $seconds, int $seed): array
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));

        return array_map(static fn(int $i): int => (int) (600 * sin($i / 12)) + $random->getInt(-40, 40), range(0, $seconds * 8000 - 1));
    }

    /**
     * White noise over it, as strong as the sound less that many dB.
     *
     * @param  list<int>  $samples
     * @return list<int>
     */
    public static function under(array $samples, float $snr, int $seed): array
    {
        $power = array_sum(array_map(static fn(int $sample): int => $sample * $sample, $samples)) / count($samples);
        // Uniform noise of amplitude a has the power a²/3.
        $most = (int) sqrt((3 * $power) / 10 ** ($snr / 10));
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));

        return array_map(static fn(int $sample): int => max(-32768, min(32767, $sample + $random->getInt(-$most, $most))), $samples);
    }

    /**
     * As a telephone passes it on: one pole at 300 Hz from below, two at 3400 Hz from above.
     *
     * @param  list<int>  $samples
     * @return list<int>
     */
    public static function telephone(array $samples): array
    {
        $low = $first = $second = 0.0;
        $keep = 1 - exp((-2 * M_PI * 300) / 8000);
        $pass = 1 - exp((-2 * M_PI * 3400) / 8000);
        foreach ($samples as $at => $sample) {
            $low += $keep * ($sample - $low);
            $first += $pass * ($sample - $low - $first);
            $second += $pass * ($first - $second);
            $samples[$at] = (int) round($second);
        }

        return $samples;
    }

    /**
     * In a room: twenty-four reflections over 0.3 s that fade, together about as strong as what comes straight.
     *
     * @param  list<int>  $samples
     * @return list<int>
     */
    public static function inRoom(array $samples, int $seed): array
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));
        $out = $samples;
        for ($n = 0; $n < 24; $n++) {
            $late = $random->getInt(80, 2400);
            $gain = ($random->getInt(0, 1) === 0 ? -0.35 : 0.35) * exp(-$late / 900);
            for ($at = $late, $count = count($samples); $at < $count; $at++) {
                $out[$at] += $gain * $samples[$at - $late];
            }
        }

        return array_map(static fn(float|int $value): int => (int) max(-32768, min(32767, $value)), $out);
    }

    /**
     * What a recorder whose clock is fast by that much writes down of it.
     *
     * @param  list<int>  $samples
     * @return list<int>
     */
    public static function drifting(array $samples, float $ppm): array
    {
        $out = [];
        for ($n = 0, $last = count($samples) - 2; ($position = $n / (1 + $ppm * 1e-6)) < $last; $n++) {
            $at = (int) $position;
            $out[] = (int) round($samples[$at] + ($position - $at) * ($samples[$at + 1] - $samples[$at]));
        }

        return $out;
    }
}
