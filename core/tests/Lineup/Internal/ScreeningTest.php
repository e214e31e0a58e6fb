<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Lineup\Internal;

use Cartella\Core\Lineup\Internal\Screening;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Tests\Support\Noise;
use PHPUnit\Framework\TestCase;

final class ScreeningTest extends TestCase
{
    private const RECORDED = 12;

    /** @param  list<int>  $samples */
    private static function track(array $samples): GuideTrack
    {
        return GuideTrack::ofBytes(pack('s*', ...$samples));
    }

    public function test_a_noisy_clip_is_found_among_many_recordings_with_its_place(): void
    {
        $screening = new Screening();
        $stages = array_map(static fn(int $seed): array => Noise::speech(self::RECORDED, $seed), range(200, 229));
        foreach ($stages as $stage) {
            $screening->add(self::track($stage));
        }
        foreach ([0 => 1.0, 13 => 4.0, 29 => 3.0] as $recording => $second) {
            $heard = Noise::heardFrom(array_slice($stages[$recording], (int) (8000 * $second), 56_000), 0.1, 60, $recording + 1);
            [$first, $next] = $screening->likeliest(self::track($heard), 3);
            self::assertSame($recording, $first['recording']);
            self::assertEqualsWithDelta(100 * $second, $first['lag'], 4);
            self::assertGreaterThan(1.5 * $next['score'], $first['score']);
        }
    }

    public function test_a_clip_that_begins_before_its_recording_has_a_place_before_it(): void
    {
        $screening = new Screening();
        $stage = Noise::speech(20, 77);
        $screening->add(self::track(Noise::speech(15, 78)));
        $screening->add(self::track(array_slice($stage, 40_000)));
        [$first] = $screening->likeliest(self::track(array_slice($stage, 24_000, 96_000)), 1);
        self::assertSame(1, $first['recording']);
        self::assertEqualsWithDelta(-200, $first['lag'], 4);
    }

    public function test_recordings_that_are_not_asked_about_are_not_answered(): void
    {
        $screening = new Screening();
        $stage = Noise::speech(10, 5);
        $screening->add(self::track($stage));
        $screening->add(self::track(Noise::speech(10, 6)));
        self::assertSame([1], array_column($screening->likeliest(self::track($stage), 5, [0 => true]), 'recording'));
    }

    public function test_what_cannot_be_heard_is_likely_nowhere(): void
    {
        $screening = new Screening();
        $silence = self::track(array_fill(0, 40_000, 0));
        self::assertSame([], $screening->likeliest($silence, 3));
        $screening->add($silence);
        self::assertSame([], $screening->likeliest(self::track(Noise::speech(5, 1)), 3));
    }
}
