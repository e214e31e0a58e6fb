<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Lineup;

use Cartella\Core\Lineup\Lineup;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\LineupResult;
use Cartella\Core\Lineup\Placement;
use Cartella\Core\Lineup\Way;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Each way of line-up alone, and what happens where their statements meet. */
final class WaysTest extends TestCase
{
    private const SECOND = Ticks::PER_SECOND;

    private const HALF_FRAME = self::SECOND / 50;

    /**
     * @param  list<int>  $samples  at 8 kHz
     * @param  array<string, mixed>  $more
     */
    private static function heard(string $id, string $device, array $samples, array $more = []): LineupClip
    {
        return new LineupClip(
            $id,
            $device,
            ...$more + [
                'isSound' => $device === 'S',
                'durationTicks' => self::at(count($samples)),
                'sound' => static fn(): GuideTrack => GuideTrack::ofBytes(pack('s*', ...$samples)),
            ],
        );
    }

    private static function at(int $samples): int
    {
        return intdiv($samples * self::SECOND, GuideTrack::SAMPLE_RATE);
    }

    private static function place(LineupResult $result, string $id): Placement
    {
        return array_values(array_filter($result->placements, static fn(Placement $place): bool => $place->id === $id))[0];
    }

    /** @return array<string, array{\Closure(list<int>): list<int>}> */
    public static function badSound(): array
    {
        return [
            '10 dB over the noise' => [static fn(array $sound): array => Noise::under($sound, 10, 91)],
            '5 dB over the noise' => [static fn(array $sound): array => Noise::under($sound, 5, 92)],
            'as loud as the noise' => [static fn(array $sound): array => Noise::under($sound, 0, 93)],
            '30 dB quieter' => [static fn(array $sound): array => array_map(static fn(int $sample): int => intdiv($sample, 32), $sound)],
            'through a telephone' => [Noise::telephone(...)],
            'in a room' => [static fn(array $sound): array => Noise::inRoom($sound, 94)],
            'with a clock 60 ppm fast' => [static fn(array $sound): array => Noise::drifting($sound, 60.0)],
            'with a clock 60 ppm slow' => [static fn(array $sound): array => Noise::drifting($sound, -60.0)],
            'all at once' => [
                static fn(array $sound): array => Noise::under(
                    Noise::telephone(
                        Noise::inRoom(Noise::drifting(array_map(static fn(int $sample): int => intdiv($sample, 8), $sound), 30.0), 95),
                    ),
                    10,
                    96,
                ),
            ],
        ];
    }

    /** @param  \Closure(list<int>): list<int>  $heard */
    #[DataProvider('badSound')]
    public function test_bad_sound_is_placed_within_two_milliseconds(\Closure $heard): void
    {
        $stage = Noise::speech(60, 20);
        $place = self::place(
            Lineup::of([self::heard('S', 'S', $stage), self::heard('A', 'A', $heard(array_slice($stage, 123_457, 96_000)))], [Way::Sound]),
            'A',
        );
        self::assertTrue($place->sure);
        self::assertEqualsWithDelta(self::at(123_457), $place->startTicks, self::SECOND / 500);
    }

    public function test_cameras_that_hear_no_recorder_are_placed_through_each_other(): void
    {
        $stage = Noise::speech(60, 21);
        $result = Lineup::of(
            [
                self::heard('S1', 'S', array_slice($stage, 0, 160_000)),
                self::heard('A1', 'A', array_slice($stage, 80_000, 200_000)),
                self::heard('B1', 'B', array_slice($stage, 200_000, 200_000)),
            ],
            [Way::Sound],
        );
        $late = self::place($result, 'B1');
        self::assertSame([0, true, 'A1'], [$late->group, $late->sure, $late->evidence['against']]);
        self::assertEqualsWithDelta(self::at(200_000), $late->startTicks, self::SECOND / 500);
    }

    public function test_several_files_of_one_recorder_and_of_one_camera_find_their_places_in_a_row(): void
    {
        $stage = Noise::speech(90, 22);
        $result = Lineup::of(
            [
                self::heard('S1', 'S', array_slice($stage, 0, 200_000)),
                self::heard('S2', 'S', array_slice($stage, 260_000, 200_000)),
                self::heard('S3', 'S', array_slice($stage, 500_000, 200_000)),
                self::heard('A1', 'A', array_slice($stage, 120_000, 260_000)),
                self::heard('A2', 'A', array_slice($stage, 390_000, 220_000)),
            ],
            [Way::Sound],
        );
        self::assertSame([], $result->strays);
        foreach (['S2' => 260_000, 'S3' => 500_000, 'A1' => 120_000, 'A2' => 390_000] as $id => $from) {
            self::assertEqualsWithDelta(self::at($from), self::place($result, $id)->startTicks, self::SECOND / 500, $id);
        }
    }

    public function test_drift_is_measured_and_does_not_move_the_start(): void
    {
        $stage = Noise::speech(80, 23);
        $result = Lineup::of(
            [self::heard('S', 'S', $stage), self::heard('A', 'A', Noise::drifting(array_slice($stage, 40_000, 560_000), 60.0))],
            [Way::Sound],
        );
        $place = self::place($result, 'A');
        self::assertEqualsWithDelta(60.0, $place->driftPpm, 3.0);
        self::assertEqualsWithDelta(self::at(40_000), $place->startTicks, self::SECOND / 2000);
    }

    public function test_a_clip_that_fits_two_places_is_not_sure_and_keeps_the_second(): void
    {
        $song = Noise::speech(12, 24);
        $stage = [...Noise::speech(10, 25), ...$song, ...Noise::speech(10, 26), ...$song, ...Noise::speech(6, 27)];
        $place = self::place(
            Lineup::of([self::heard('S', 'S', $stage), self::heard('A', 'A', array_slice($song, 8_000, 72_000))], [Way::Sound]),
            'A',
        );
        self::assertFalse($place->sure);
        $both = [$place->startTicks, $place->evidence['second_ticks']];
        sort($both);
        self::assertEqualsWithDelta(self::at(88_000), $both[0], self::HALF_FRAME);
        self::assertEqualsWithDelta(self::at(88_000 + 176_000), $both[1], self::HALF_FRAME);
    }

    public function test_the_second_best_place_may_lie_along_another_recording(): void
    {
        $song = Noise::speech(12, 24);
        $place = self::place(
            Lineup::of(
                [
                    self::heard('S1', 'S', [...Noise::speech(10, 25), ...$song, ...Noise::speech(8, 26)]),
                    self::heard('S2', 'S', [...Noise::speech(4, 27), ...$song, ...Noise::speech(9, 28)]),
                    self::heard('A', 'A', array_slice($song, 8_000, 72_000)),
                ],
                [Way::Sound],
            ),
            'A',
        );
        self::assertFalse($place->sure);
        $starts = ['S1' => self::at(88_000), 'S2' => self::at(40_000)];
        $other = $place->evidence['second_against'];
        self::assertNotSame($place->evidence['against'], $other);
        self::assertEqualsWithDelta($starts[$other], $place->evidence['second_ticks'], self::HALF_FRAME);
    }

    public function test_a_cycle_that_does_not_close_takes_the_sureness_and_names_the_weakest_link(): void
    {
        // B heard the recorder in its left half and camera A in its right half, which was cut short by half a second.
        $stage = Noise::speech(60, 28);
        $result = Lineup::of(
            [
                self::heard('S', 'S', array_slice($stage, 0, 160_000)),
                self::heard('A', 'A', array_slice($stage, 80_000, 320_000)),
                self::heard('B', 'B', [...array_slice($stage, 40_000, 120_000), ...array_slice($stage, 164_000, 160_000)]),
            ],
            [Way::Sound],
        );
        $doubted = array_filter($result->placements, static fn(Placement $place): bool => isset($place->evidence['weakest_link']));
        self::assertCount(1, $doubted);
        self::assertContains('B', array_values($doubted)[0]->evidence['weakest_link']);
        self::assertLessThan(0.6, array_values($doubted)[0]->confidence);
        self::assertFalse(array_values($doubted)[0]->sure);
    }

    public function test_the_same_playback_in_two_takes_does_not_lay_one_take_over_the_other(): void
    {
        $song = Noise::speech(15, 40);
        $noisy = static fn(int $from, int $count, int $seed): array => Noise::heardFrom(array_slice($song, $from, $count), 0.8, 700, $seed);
        $clips = [
            self::heard('S1', 'S', $noisy(0, 120_000, 1)),
            self::heard('S2', 'S', $noisy(0, 120_000, 2)),
            self::heard('A1', 'A', $noisy(8_000, 100_000, 3)),
            // Camera B did not roll on the first take, so nothing rivals what it has in common with that.
            self::heard('B2', 'B', $noisy(12_000, 100_000, 4)),
        ];
        $result = Lineup::of(
            [
                new LineupClip('S1', 'S', true, $clips[0]->durationTicks, 1000 * self::SECOND, null, $clips[0]->sound),
                new LineupClip('S2', 'S', true, $clips[1]->durationTicks, 2000 * self::SECOND, null, $clips[1]->sound),
                $clips[2],
                $clips[3],
            ],
            [Way::Sound, Way::Timecode],
        );
        self::assertSame(1000 * self::SECOND, self::place($result, 'S2')->startTicks, 'the second recording stays where its clock says');
        self::assertArrayNotHasKey('S1', $result->strays);
    }

    public function test_a_clip_whose_own_clock_contradicts_its_sound_is_not_sure(): void
    {
        $stage = Noise::speech(60, 41);
        $clips = [self::heard('S', 'S', $stage, ['startTicks' => 0])];
        foreach ([16_000, 150_000, 300_000] as $n => $from) {
            $clips[] = self::heard("A$n", 'A', array_slice($stage, $from, 90_000), [
                'startTicks' => self::at($from) + ($n === 2 ? 7 * self::SECOND : 0),
            ]);
        }
        $result = Lineup::of($clips, [Way::Sound, Way::Timecode]);
        self::assertTrue(self::place($result, 'A1')->sure);
        self::assertFalse(self::place($result, 'A2')->sure);
        self::assertEqualsWithDelta(-7 * self::SECOND, self::place($result, 'A2')->evidence['clock_disagrees_ticks'], self::HALF_FRAME);
    }

    public function test_two_clips_of_one_camera_never_lie_over_each_other(): void
    {
        $stage = Noise::speech(30, 29);
        $result = Lineup::of(
            [
                self::heard('S', 'S', $stage),
                self::heard('A1', 'A', array_slice($stage, 40_000, 80_000)),
                self::heard('A2', 'A', Noise::heardFrom(array_slice($stage, 60_000, 80_000), 0.4, 2500, 4)),
            ],
            [Way::Sound],
        );
        self::assertSame(['A2'], array_keys($result->strays));
        self::assertStringContainsString('A1', $result->strays['A2']);
    }

    public function test_a_file_that_cannot_be_decoded_is_a_stray_and_the_rest_goes_on(): void
    {
        $stage = Noise::speech(20, 30);
        $broken = new LineupClip(
            'A1',
            'A',
            false,
            self::SECOND,
            null,
            null,
            static fn(): GuideTrack => throw UnableToReadMedia::program('ffmpeg', '/cards/A1.mov', 'Invalid data found'),
        );
        $result = Lineup::of(
            [self::heard('S', 'S', $stage), $broken, self::heard('B1', 'B', array_slice($stage, 16_000, 90_000))],
            [Way::Sound],
        );
        self::assertStringContainsString('Invalid data found', $result->strays['A1']);
        self::assertTrue(self::place($result, 'B1')->sure);
    }

    public function test_markers_of_one_name_lie_at_one_moment(): void
    {
        $result = Lineup::of(
            [
                new LineupClip('S', 'S', true, 30 * self::SECOND, marks: ['clap 12A-3' => 5 * self::SECOND]),
                new LineupClip('A', 'A', false, 20 * self::SECOND, marks: ['clap 12A-3' => 2 * self::SECOND]),
                new LineupClip('B', 'B', false, 20 * self::SECOND, marks: ['clap 12A-4' => 2 * self::SECOND]),
            ],
            [Way::Mark],
        );
        $place = self::place($result, 'A');
        self::assertSame(
            [3 * self::SECOND, Way::Mark, false, 'clap 12A-3'],
            [$place->startTicks, $place->way, $place->sure, $place->evidence['point']],
        );
        self::assertArrayHasKey('B', $result->strays);
    }

    public function test_in_points_out_points_and_starts_tie_the_clips_of_one_take(): void
    {
        $clips = [];
        foreach (['1' => 0, '2' => 100] as $take => $from) {
            $clips[] = new LineupClip(
                "S$take",
                'S',
                true,
                30 * self::SECOND,
                $from * self::SECOND,
                inTicks: 4 * self::SECOND,
                outTicks: 20 * self::SECOND,
                take: "12A-$take",
            );
            $clips[] = new LineupClip(
                "A$take",
                'A',
                false,
                30 * self::SECOND,
                inTicks: self::SECOND,
                outTicks: 18 * self::SECOND,
                take: "12A-$take",
            );
        }
        foreach ([[Way::In, 3], [Way::Out, 2], [Way::Start, 0]] as [$way, $seconds]) {
            $result = Lineup::of($clips, [$way, Way::Timecode]);
            self::assertSame($seconds * self::SECOND, self::place($result, 'A1')->startTicks);
            self::assertSame((100 + $seconds) * self::SECOND, self::place($result, 'A2')->startTicks);
            self::assertSame($way, self::place($result, 'A2')->way);
        }
    }

    public function test_sound_that_was_found_once_is_not_moved_by_a_later_way(): void
    {
        $stage = Noise::speech(20, 31);
        $result = Lineup::of(
            [
                self::heard('S', 'S', $stage, ['marks' => ['clap' => 0]]),
                self::heard('A', 'A', array_slice($stage, 24_000, 90_000), ['marks' => ['clap' => 0]]),
            ],
            [Way::Sound, Way::Mark, Way::Start],
        );
        self::assertSame(Way::Sound, self::place($result, 'A')->way);
        self::assertEqualsWithDelta(self::at(24_000), self::place($result, 'A')->startTicks, self::HALF_FRAME);
    }

    public function test_the_clock_that_counts_can_be_chosen(): void
    {
        $result = Lineup::of(
            [
                new LineupClip('S', 'S', true, 9 * self::SECOND, 100 * self::SECOND),
                new LineupClip('A', 'A', false, 9 * self::SECOND, 103 * self::SECOND),
            ],
            [Way::Timecode],
            null,
            'A',
        );
        self::assertSame('A', $result->zero);
        self::assertSame(-3 * self::SECOND, self::place($result, 'S')->startTicks);
    }
}
