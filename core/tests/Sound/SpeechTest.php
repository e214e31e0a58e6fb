<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Sound;

use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Sound\Speech;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class SpeechTest extends TestCase
{
    /** @return array<string, array{int, float}> */
    public static function rooms(): array
    {
        return ['a quiet room' => [11, 1.0], 'another voice, softer' => [73, 0.3]];
    }

    /** Ten seconds of hum, a clap at 3 s, somebody speaks from 6 s on. */
    #[DataProvider('rooms')]
    public function test_it_hears_the_first_word_and_not_the_clap_before_it(int $seed, float $loud): void
    {
        $samples = Noise::hum(14, $seed);
        for ($i = 0; $i < 500; $i++) {
            $samples[24_000 + $i] = (int) (24_000 * exp(-$i / 120) * ($i % 2 === 0 ? 1 : -1));
        }
        foreach (Noise::speech(6, $seed) as $i => $sample) {
            $samples[48_000 + $i] = max(-32_768, min(32_767, $samples[48_000 + $i] + (int) ($loud * $sample)));
        }
        $starts = Speech::starts(GuideTrack::ofBytes(pack('s*', ...$samples)));
        self::assertEqualsWithDelta(6.0, ($starts[0] ?? 0) / Ticks::PER_SECOND, 0.35);
        self::assertSame($starts[0], Speech::firstOf($starts, 3 * Ticks::PER_SECOND, 20 * Ticks::PER_SECOND));
        self::assertNull(Speech::firstOf($starts, 3 * Ticks::PER_SECOND, 5 * Ticks::PER_SECOND));
    }

    public function test_hum_and_silence_say_nothing(): void
    {
        self::assertSame([], Speech::starts(GuideTrack::ofBytes(pack('s*', ...Noise::hum(20, 5)))));
        self::assertSame([], Speech::starts(GuideTrack::ofBytes(str_repeat("\0", 320_000))));
        self::assertSame([], Speech::starts(GuideTrack::ofBytes('')));
    }
}
