<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Sound;

use Cartella\Core\Process;
use Cartella\Core\Sound\ClockRate;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ClockRateTest extends TestCase
{
    /** @return list<array{float}> */
    public static function drifts(): array
    {
        return [[60.0], [-60.0], [1.3], [-12.34], [99.99], [130.0]];
    }

    #[DataProvider('drifts')]
    public function test_an_hour_is_stretched_to_less_than_a_twentieth_of_a_millisecond(float $ppm): void
    {
        [$from, $to] = ClockRate::ratio($ppm);
        self::assertEqualsWithDelta(3600 * (1 + $ppm * 1e-6), (3600 * $to) / $from, 0.000_05);
    }

    public function test_less_than_half_a_part_per_million_is_left_alone(): void
    {
        self::assertSame(['', ''], [ClockRate::filter(0.0, 48_000), ClockRate::filter(-0.4, 48_000)]);
    }

    public function test_a_click_at_a_hundred_seconds_comes_as_much_later_as_the_clock_is_fast(): void
    {
        $run = Process::run(
            [
                'ffmpeg',
                '-v',
                'error',
                '-nostdin',
                '-f',
                'lavfi',
                '-i',
                'aevalsrc=gte(t\,100)*0.5:s=48000:d=101',
                '-af',
                ClockRate::filter(60.0, 48_000),
                '-ar',
                '48000',
                '-ac',
                '1',
                '-f',
                's16le',
                '-',
            ],
            null,
            60,
        );
        self::assertSame(0, $run['status'], $run['error']);
        $samples = unpack('s*', substr($run['output'], 2 * 4_799_000, 4_000));
        $at = 4_799_000 + array_key_first(array_filter($samples, static fn(int $sample): bool => $sample > 8_000)) - 1;
        self::assertEqualsWithDelta(4_800_000 * 1.000_06, $at, 3);
    }
}
