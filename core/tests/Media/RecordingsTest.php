<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Media;

use Cartella\Core\Media\Ixml;
use Cartella\Core\Media\MediaInfo;
use Cartella\Core\Media\Recordings;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\TestCase;

final class RecordingsTest extends TestCase
{
    private static function sound(float $start, float $length, int $channels = 1, ?string $family = null): MediaInfo
    {
        $problems = [];

        return new MediaInfo(
            'x',
            'sound',
            durationTicks: (int) ($length * Ticks::PER_SECOND),
            startTicks: (int) ($start * Ticks::PER_SECOND),
            sampleRate: 48_000,
            channels: array_fill(0, $channels, ['index' => 1, 'name' => '', 'function' => null]),
            ixml: $family === null
                ? null
                : Ixml::parse("<BWFXML><FILE_SET><FAMILY_UID>$family</FAMILY_UID></FILE_SET></BWFXML>", $problems),
        );
    }

    private static function picture(float $start, float $length): MediaInfo
    {
        return new MediaInfo(
            'x',
            'picture',
            durationTicks: (int) ($length * Ticks::PER_SECOND),
            rate: FrameRate::ofFraction(25, 1),
            startTicks: (int) ($start * Ticks::PER_SECOND),
            width: 1920,
            height: 1080,
        );
    }

    /**
     * @param  array<string, MediaInfo>  $clips
     * @param  list<string>  $others
     * @return list<string> layout and parts
     */
    private static function found(array $clips, array $others = []): array
    {
        return array_map(
            static fn(array $one): string => $one['layout'] .
                ' ' .
                implode('+', $one['parts']) .
                ($one['sidecars'] === [] ? '' : ' with ' . implode('+', $one['sidecars'])),
            Recordings::of($clips, $others),
        );
    }

    public function test_tracks_in_a_file_each_are_one_recording_in_the_order_of_their_numbers(): void
    {
        $clips = [];
        foreach ([10, 2, 1] as $track) {
            $clips["T01_$track.wav"] = self::sound(36_000, 20);
        }
        self::assertSame(['split T01_1.wav+T01_2.wav+T01_10.wav'], self::found($clips));
    }

    public function test_tracks_are_found_by_their_family_whatever_their_names(): void
    {
        self::assertSame(
            ['split boom.wav+lav.wav'],
            self::found(['boom.wav' => self::sound(0, 20, family: 'F1'), 'lav.wav' => self::sound(0, 20, family: 'F1')]),
        );
    }

    public function test_two_recorders_that_ran_together_stay_two(): void
    {
        self::assertSame(
            ['single S001.wav', 'single T001.wav'],
            self::found(['S001.wav' => self::sound(0, 20), 'T001.wav' => self::sound(0, 20)]),
        );
    }

    public function test_a_clip_that_goes_on_in_further_files_is_one_recording(): void
    {
        self::assertSame(
            ['span A001C003_001.mov+A001C003_002.mov+A001C003_003.mov'],
            self::found([
                'A001C003_001.mov' => self::picture(100, 60),
                'A001C003_002.mov' => self::picture(160, 60),
                'A001C003_003.mov' => self::picture(220, 12),
            ]),
        );
        self::assertSame(
            ['span S001T03.wav+S001T03_2.wav'],
            self::found(['S001T03.wav' => self::sound(0, 20, 4), 'S001T03_2.wav' => self::sound(20, 5, 4)]),
        );
    }

    public function test_clips_that_only_follow_one_another_on_the_timecode_stay_apart(): void
    {
        self::assertSame(
            ['single A001C001.mov', 'single A001C002.mov'],
            self::found(['A001C001.mov' => self::picture(0, 10), 'A001C002.mov' => self::picture(10, 10)]),
            'timecode that runs with the recording',
        );
        self::assertSame(
            ['single CLIP_001.mov', 'single CLIP_002.mov'],
            self::found(['CLIP_001.mov' => self::picture(0, 10), 'CLIP_002.mov' => self::picture(10, 10)]),
            'a device that only counts',
        );
        self::assertSame(
            ['single A001C003_001.mov', 'single A001C003_002.mov'],
            self::found(['A001C003_001.mov' => self::picture(0, 10), 'A001C003_002.mov' => self::picture(12, 10)]),
            'a gap of two seconds',
        );
    }

    public function test_files_in_different_folders_are_never_one_recording(): void
    {
        self::assertSame(
            ['single A/T01_1.wav', 'single B/T01_2.wav'],
            self::found(['A/T01_1.wav' => self::sound(0, 9), 'B/T01_2.wav' => self::sound(0, 9)]),
        );
    }

    public function test_what_lies_beside_a_clip_and_has_its_name_is_its_sidecar(): void
    {
        self::assertSame(
            ['single R/a.mov with R/A.XML+R/a.thm'],
            self::found(['R/a.mov' => self::picture(0, 9)], ['R/A.XML', 'R/a.thm', 'R/b.xml', 'a.xml', 'R/a.dat']),
        );
    }
}
