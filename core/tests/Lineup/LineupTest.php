<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Lineup;

use Cartella\Core\Lineup\Lineup;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\Placement;
use Cartella\Core\Lineup\SoundMatcher;
use Cartella\Core\Lineup\Way;
use Cartella\Core\Sound\Claps;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\TestCase;

final class LineupTest extends TestCase
{
    private const HALF_FRAME = Ticks::PER_SECOND / 50;

    private static function sample(int $samples): int
    {
        return intdiv($samples * Ticks::PER_SECOND, GuideTrack::SAMPLE_RATE);
    }

    /** @param  list<int>  $samples */
    private static function clip(
        string $id,
        string $device,
        array $samples,
        ?int $startTicks = null,
        bool $isSound = false,
        ?int $recorded = null,
    ): LineupClip {
        return new LineupClip(
            $id,
            $device,
            $isSound,
            self::sample(count($samples)),
            $startTicks,
            $recorded,
            static fn(): GuideTrack => GuideTrack::ofBytes(pack('s*', ...$samples)),
        );
    }

    /** @return array<string, Placement> */
    private static function placed(\Cartella\Core\Lineup\LineupResult $result): array
    {
        return array_column(array_map(static fn(Placement $place): array => [$place->id, $place], $result->placements), 1, 0);
    }

    public function test_sound_places_a_quiet_noisy_narrow_camera_within_half_a_frame(): void
    {
        $stage = Noise::speech(30, 11);
        $camera = Noise::heardFrom(array_slice($stage, 48_003, 96_000), gain: 0.03, noise: 60, seed: 5);
        $result = Lineup::of([self::clip('S', 'S', $stage, isSound: true), self::clip('A', 'A', $camera)], [Way::Sound]);
        $place = self::placed($result)['A'];
        self::assertTrue($place->sure);
        self::assertSame(Way::Sound, $place->way);
        self::assertEqualsWithDelta(self::sample(48_003), $place->startTicks, self::HALF_FRAME);
    }

    public function test_the_place_from_a_to_b_is_the_negative_of_that_from_b_to_a(): void
    {
        $stage = Noise::speech(24, 3);
        $a = GuideTrack::ofBytes(pack('s*', ...array_slice($stage, 0, 120_000)));
        $b = GuideTrack::ofBytes(pack('s*', ...array_slice($stage, 40_000, 120_000)));
        $forth = (new SoundMatcher())->match('a', $a, 'b', $b);
        $back = (new SoundMatcher())->match('b', $b, 'a', $a);
        self::assertSame(self::sample(40_000), $forth?->offsetTicks);
        self::assertSame(-$forth->offsetTicks, $back?->offsetTicks);
    }

    public function test_sound_that_is_not_the_same_is_a_stray_and_never_sure(): void
    {
        $result = Lineup::of(
            [self::clip('S', 'S', Noise::speech(30, 1), isSound: true), self::clip('A', 'A', Noise::speech(12, 2))],
            [Way::Sound],
        );
        self::assertArrayHasKey('A', $result->strays);
        self::assertNotSame('', $result->strays['A']);
    }

    public function test_silence_is_a_stray_with_its_reason_and_stops_nobody(): void
    {
        $stage = Noise::speech(20, 4);
        $result = Lineup::of(
            [
                self::clip('S', 'S', $stage, isSound: true),
                self::clip('mute', 'A', array_fill(0, 40_000, 0)),
                self::clip('B', 'B', array_slice($stage, 16_000, 80_000)),
            ],
            [Way::Sound],
        );
        self::assertSame('Nothing can be heard on it.', $result->strays['mute']);
        self::assertTrue(self::placed($result)['B']->sure);
    }

    public function test_a_clip_without_sound_goes_where_the_learned_clock_says(): void
    {
        $stage = Noise::speech(60, 8);
        $noon = 12 * 3600 * Ticks::PER_SECOND;
        $late = 3 * Ticks::PER_SECOND;
        $clips = [self::clip('S', 'S', $stage, $noon, true)];
        foreach ([[8_000, 90_000], [160_000, 90_000], [300_000, 90_000]] as $index => [$from, $length]) {
            $clips[] = self::clip('A' . $index, 'A', array_slice($stage, $from, $length), $noon + self::sample($from) - $late);
        }
        $clips[] = new LineupClip('MOS', 'A', false, 4 * Ticks::PER_SECOND, $noon + 50 * Ticks::PER_SECOND - $late);
        $result = Lineup::of($clips, [Way::Sound, Way::Timecode]);
        $place = self::placed($result)['MOS'];
        self::assertSame(Way::Timecode, $place->way);
        self::assertTrue($place->sure);
        self::assertEqualsWithDelta(50 * Ticks::PER_SECOND, $place->startTicks, self::HALF_FRAME);
        self::assertEqualsWithDelta($late, $result->deviceOffsets['A']['offset_ticks'], self::HALF_FRAME);
    }

    public function test_the_clock_of_recorded_dates_teaches_nothing_of_a_devices_timecode(): void
    {
        $stage = Noise::speech(60, 19);
        $hours = 3 * 3600 * Ticks::PER_SECOND;
        $clips = [self::clip('S', 'S', $stage, null, true, recorded: 10 * $hours)];
        foreach ([8_000, 160_000, 300_000] as $index => $from) {
            $clips[] = self::clip("A$index", 'A', array_slice($stage, $from, 90_000), recorded: 9 * $hours + self::sample($from));
        }
        $result = Lineup::of($clips, [Way::Sound, Way::Clock]);
        self::assertArrayNotHasKey('A', $result->deviceOffsets, 'it has no timecode that could be off');
        self::assertEqualsWithDelta($hours, $result->recordedOffsets['A']['offset_ticks'], self::HALF_FRAME);
    }

    public function test_timecode_alone_places_across_midnight(): void
    {
        $before = 86_390 * Ticks::PER_SECOND;
        $result = Lineup::of(
            [
                new LineupClip('S', 'S', true, 30 * Ticks::PER_SECOND, $before),
                new LineupClip('A', 'A', false, 5 * Ticks::PER_SECOND, 2 * Ticks::PER_SECOND),
            ],
            [Way::Timecode],
        );
        self::assertSame(12 * Ticks::PER_SECOND, self::placed($result)['A']->startTicks);
    }

    public function test_a_clip_after_midnight_is_sure_only_where_a_date_says_of_which_day_it_is(): void
    {
        $hour = 3600 * Ticks::PER_SECOND;
        $day = 24 * $hour;
        $clips = [
            new LineupClip('S1', 'S', true, 30 * Ticks::PER_SECOND, 11 * $hour, 20 * $day + 11 * $hour),
            new LineupClip('S2', 'S', true, 30 * Ticks::PER_SECOND, 18 * $hour, 20 * $day + 18 * $hour),
            new LineupClip('dated', 'S', true, 5 * Ticks::PER_SECOND, intdiv($hour, 2), 21 * $day + intdiv($hour, 2)),
            new LineupClip('undated', 'S', true, 5 * Ticks::PER_SECOND, $hour),
        ];
        $places = self::placed(Lineup::of($clips, [Way::Timecode]));
        self::assertSame([intdiv(27 * $hour, 2), 14 * $hour], [$places['dated']->startTicks, $places['undated']->startTicks]);
        self::assertSame([true, true, false], [$places['S2']->sure, $places['dated']->sure, $places['undated']->sure]);
    }

    public function test_a_locked_place_is_kept_whatever_the_sound_says(): void
    {
        $stage = Noise::speech(20, 6);
        $free = self::clip('A', 'A', array_slice($stage, 16_000, 80_000));
        $locked = new LineupClip('A', 'A', false, $free->durationTicks, null, null, $free->sound, 7 * Ticks::PER_SECOND);
        $result = Lineup::of([self::clip('S', 'S', $stage, isSound: true), $locked], [Way::Sound]);
        self::assertSame(7 * Ticks::PER_SECOND, self::placed($result)['A']->startTicks);
    }

    public function test_nothing_to_line_up_is_an_empty_answer(): void
    {
        self::assertNull(Lineup::of([], [Way::Sound])->zero);
    }

    public function test_a_clap_is_found_where_it_is_and_speech_alone_has_none(): void
    {
        $samples = Noise::hum(6, 2);
        for ($i = 0; $i < 400; $i++) {
            $samples[20_000 + $i] = (int) (26_000 * exp(-$i / 90) * ($i % 2 === 0 ? 1 : -1));
        }
        $track = GuideTrack::ofBytes(pack('s*', ...$samples));
        self::assertEqualsWithDelta(self::sample(20_000), Claps::strongest($track, 0, 6 * Ticks::PER_SECOND), self::sample(160));
        self::assertNull(Claps::strongest(GuideTrack::ofBytes(pack('s*', ...Noise::hum(6, 2))), 0, 6 * Ticks::PER_SECOND));
        self::assertNull(
            Claps::strongest($track, 3 * Ticks::PER_SECOND, 6 * Ticks::PER_SECOND),
            'only within the stretch that was asked for',
        );
    }
}
