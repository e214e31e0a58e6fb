<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Lineup;

use Cartella\Core\Lineup\Gaps;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\TestCase;

final class GapsTest extends TestCase
{
    /** @return list<array{int, int, bool}> seconds to ticks */
    private static function lane(array ...$spans): array
    {
        return array_map(
            static fn(array $span): array => [$span[0] * Ticks::PER_SECOND, $span[1] * Ticks::PER_SECOND, $span[2] ?? false],
            array_values($spans),
        );
    }

    public function test_a_moment_that_one_device_missed_and_the_others_did_not(): void
    {
        $gaps = Gaps::of(['A' => self::lane([0, 10], [60, 70]), 'S' => self::lane([1, 11])]);
        self::assertSame(['A' => [], 'S' => [[60 * Ticks::PER_SECOND, 70 * Ticks::PER_SECOND]]], $gaps);
    }

    public function test_nothing_where_one_was_meant_to_be_alone_or_for_a_blink(): void
    {
        self::assertSame(['A' => [], 'S' => []], Gaps::of(['A' => self::lane([0, 10, true], [60, 61]), 'S' => []]));
    }

    public function test_one_long_recording_misses_nothing_that_runs_inside_it(): void
    {
        $gaps = Gaps::of(['S' => self::lane([0, 600]), 'A' => self::lane([10, 20], [30, 40]), 'B' => self::lane([700, 710])]);
        self::assertSame([[700 * Ticks::PER_SECOND, 710 * Ticks::PER_SECOND]], $gaps['S']);
        self::assertSame([[700 * Ticks::PER_SECOND, 710 * Ticks::PER_SECOND]], $gaps['A']);
        self::assertSame([[0, 600 * Ticks::PER_SECOND]], $gaps['B']);
    }
}
