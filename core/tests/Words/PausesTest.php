<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Words;

use Cartella\Core\Time\Ticks;
use Cartella\Core\Words\Levels;
use Cartella\Core\Words\Pauses;
use Cartella\Core\Words\QuietEdges;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Where nobody speaks, in rooms that are loud or still. */
final class PausesTest extends TestCase
{
    /** Ticks of a step: 10 ms. */
    private const STEP = Ticks::PER_SECOND / 100;

    /**
     * Syllables of a fifth of a second over noise, with pauses.
     *
     * @param  list<array{float, float}>  $pauses  seconds
     * @return list<float> dBFS
     */
    private static function talk(float $seconds, array $pauses, float $noise, float $voice, int $seed): array
    {
        mt_srand($seed);
        $levels = [];
        for ($step = 0; $step < 100 * $seconds; $step++) {
            $at = $step / 100;
            $isQuiet = array_filter($pauses, static fn(array $one): bool => $at >= $one[0] && $at < $one[1]) !== [];
            $level = $noise + mt_rand(-15, 15) / 10;
            $levels[] = $isQuiet ? $level : max($level, $voice - 12 * abs(sin($step / 6.3)) - mt_rand(0, 30) / 10);
        }

        return $levels;
    }

    /** @return array<string, array{float, float}> noise and voice, dBFS */
    public static function rooms(): array
    {
        return ['a studio' => [-72.0, -20.0], 'a quay' => [-38.0, -14.0], 'far from the microphone' => [-60.0, -36.0]];
    }

    #[DataProvider('rooms')]
    public function test_the_threshold_is_found_from_the_sounds_own_noise(float $noise, float $voice): void
    {
        $there = [[3.0, 4.2], [9.0, 9.3], [15.0, 18.0]];
        $found = Pauses::of(Levels::of([self::talk(24, $there, $noise, $voice, 5)], self::STEP), null, Ticks::PER_SECOND);
        self::assertCount(2, $found->pauses);
        foreach ([[3.0, 4.2], [15.0, 18.0]] as $at => [$from, $to]) {
            self::assertEqualsWithDelta($from, $found->pauses[$at][0] / Ticks::PER_SECOND, 0.06);
            self::assertEqualsWithDelta($to, $found->pauses[$at][1] / Ticks::PER_SECOND, 0.06);
        }
        self::assertEqualsWithDelta($noise, $found->floorDb, 2.0);
        // What is no pause is speech, and nothing is both.
        $ends = [0];
        foreach ($found->speech as [$from, $to]) {
            array_push($ends, $from, $to);
        }
        self::assertSame(
            array_merge(
                [0, 0],
                ...array_map(static fn(array $one): array => [$one[0], $one[1]], $found->pauses),
                ...[[24 * Ticks::PER_SECOND]],
            ),
            $ends,
        );
    }

    public function test_a_threshold_and_padding_that_are_given_are_kept(): void
    {
        $levels = [...array_fill(0, 100, -20.0), ...array_fill(0, 100, -45.0), ...array_fill(0, 100, -20.0)];
        $of = static fn(?float $below, float $padding = 0): array => Pauses::of(
            Levels::of([$levels], self::STEP),
            $below,
            0,
            Ticks::ofSeconds($padding),
        )->pauses;
        self::assertSame([], $of(-50.0));
        self::assertEqualsWithDelta(Ticks::PER_SECOND, $of(-30.0)[0][0], 3 * self::STEP);
        self::assertEqualsWithDelta(1.2 * Ticks::PER_SECOND, $of(-30.0, 0.2)[0][0], 3 * self::STEP);
        self::assertEqualsWithDelta(1.8 * Ticks::PER_SECOND, $of(-30.0, 0.2)[0][1], 3 * self::STEP);
        self::assertSame([], $of(-30.0, 0.6), 'padding that leaves nothing of it');
    }

    public function test_one_channel_that_speaks_is_enough_and_a_click_is_nothing(): void
    {
        $quiet = array_fill(0, 600, -70.0);
        $one = $quiet;
        $other = $quiet;
        for ($step = 100; $step < 200; $step++) {
            $one[$step] = -25.0;
        }
        for ($step = 400; $step < 500; $step++) {
            $other[$step] = -25.0;
        }
        $one[300] = -10.0;
        $found = Pauses::of(Levels::of([$one, $other], self::STEP), null, Ticks::PER_SECOND / 2);
        self::assertCount(3, $found->pauses);
        self::assertCount(2, $found->speech);
    }

    public function test_the_tone_of_a_room_is_one_pause_and_tones_over_silence_are_none(): void
    {
        $tone = Pauses::of(Levels::of([self::talk(20, [[0, 20]], -50, -20, 3)], self::STEP));
        self::assertSame([[0, 20 * Ticks::PER_SECOND]], $tone->pauses);
        $beeps = [...array_fill(0, 200, -18.0), ...array_fill(0, 200, Levels::SILENT), ...array_fill(0, 200, -18.0)];
        $found = Pauses::of(Levels::of([$beeps], self::STEP));
        self::assertCount(1, $found->pauses);
        self::assertEqualsWithDelta(2.0, $found->pauses[0][0] / Ticks::PER_SECOND, 0.03);
        $nothing = Pauses::of(Levels::of([array_fill(0, 300, Levels::SILENT)], self::STEP));
        self::assertSame([[0, 3 * Ticks::PER_SECOND]], $nothing->pauses);
    }

    public function test_somebody_who_speaks_twice_in_an_hour_is_heard(): void
    {
        $levels = self::talk(3600, [[0, 900], [904, 2400], [2403, 3600]], -55, -24, 21);
        $found = Pauses::of(Levels::of([$levels], self::STEP), null, Ticks::PER_SECOND);
        self::assertSame(
            [[900, 904], [2400, 2403]],
            array_map(
                static fn(array $one): array => array_map(static fn(int $at): int => (int) round($at / Ticks::PER_SECOND), $one),
                $found->speech,
            ),
        );
    }

    public function test_noise_that_grows_is_judged_minute_by_minute(): void
    {
        $levels = [...self::talk(90, [[40, 43]], -66, -22, 8), ...self::talk(90, [[30, 33]], -44, -18, 9)];
        $found = Pauses::of(Levels::of([$levels], self::STEP), null, 2 * Ticks::PER_SECOND);
        self::assertSame([40, 120], array_map(static fn(array $one): int => (int) round($one[0] / Ticks::PER_SECOND), $found->pauses));
    }

    public function test_words_are_cut_out_in_the_quiet_around_them(): void
    {
        $levels = Levels::of(
            [[...array_fill(0, 50, -20.0), ...array_fill(0, 12, -60.0), ...array_fill(0, 50, -20.0), ...array_fill(0, 100, -60.0)]],
            self::STEP,
        );
        $at = static fn(int $step): int => $step * (int) self::STEP;
        [$from, $to] = QuietEdges::around($levels, $at(62), $at(112), $at(50), null);
        self::assertGreaterThanOrEqual($at(50), $from);
        self::assertLessThanOrEqual($at(62), $from);
        self::assertGreaterThan($at(112), $to);
        self::assertLessThanOrEqual($at(132), $to);
        // Words without quiet between them are cut at their edges.
        self::assertSame([$at(20), $at(40)], QuietEdges::around($levels, $at(20), $at(40), $at(20), $at(40)));
    }

    public function test_a_part_of_a_sound_says_what_the_whole_says_of_it(): void
    {
        $path = tempnam(sys_get_temp_dir(), 'peaks');
        $steps = 4000;
        $values = '';
        for ($step = 0; $step < $steps; $step++) {
            foreach ([0, 1] as $channel) {
                $values .= pack('vvv', 0, 0, (7919 * ($step + 3 * $channel)) % 32768);
            }
        }
        file_put_contents($path, 'CPK1' . pack('vvVVP', 2, 1, 256, 48000, $steps * 256 - 100) . pack('V', $steps) . $values);
        $whole = Levels::ofPeaks($path);
        $part = Levels::ofPeaks($path, 5 * Ticks::PER_SECOND, 9 * Ticks::PER_SECOND);
        unlink($path);
        self::assertEqualsWithDelta(4 * 187.5, $part->steps(), 2);
        foreach ([5.0, 6.31, 8.99] as $second) {
            $ticks = (int) ($second * Ticks::PER_SECOND);
            foreach ([0, 1] as $channel) {
                self::assertSame($whole->at($channel, $whole->step($ticks)), $part->at($channel, $part->step($ticks)));
            }
            self::assertSame($whole->ticks($whole->step($ticks)), $part->ticks($part->step($ticks)));
        }
    }
}
