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

        return array_map(static fn (int $i): int => (int) (600 * sin($i / 12)) + $random->getInt(-40, 40), range(0, $seconds * 8000 - 1));
    }
}
