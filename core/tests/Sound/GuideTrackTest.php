<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Sound;

use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Tests\Support\Folder;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Tests\Support\WavBuilder;
use PHPUnit\Framework\TestCase;

final class GuideTrackTest extends TestCase
{
    use Folder;

    public function test_any_recording_is_brought_to_one_form_and_all_its_channels_are_heard(): void
    {
        $samples = '';
        for ($i = 0; $i < 48_000; $i++) {
            $samples .= pack('vvvv', 0, 0, 0, (int) (8000 * sin($i / 20)) & 0xFFFF);
        }
        $track = GuideTrack::decode(WavBuilder::pcm(0, 4, 16, 48_000, $samples)->write($this->folder.'/four.wav'), 4);
        self::assertSame([8000, 100], [$track->samples(), $track->steps()]);
        self::assertEqualsWithDelta(2000, max(unpack('s*', $track->bytes) ?: [0]), 150, 'a quarter of the one channel that has sound');
    }

    public function test_the_shape_of_sound_has_no_mean_unit_spread_and_no_spikes(): void
    {
        foreach (GuideTrack::ofBytes(pack('s*', ...Noise::speech(10, 7)))->shape() as $shape) {
            self::assertCount(1000, $shape);
            self::assertEqualsWithDelta(0.0, array_sum($shape) / 1000, 0.1);
            self::assertLessThanOrEqual(4.0, max(array_map('abs', $shape)));
        }
    }

    public function test_loudness_does_not_change_the_shape_of_what_is_heard(): void
    {
        $speech = Noise::speech(6, 9);
        $loud = GuideTrack::ofBytes(pack('s*', ...$speech))->shape()[0];
        $quiet = GuideTrack::ofBytes(pack('s*', ...array_map(static fn (int $sample): int => intdiv($sample, 4), $speech)))->shape()[0];
        $likeness = 0.0;
        foreach ($loud as $step => $value) {
            $likeness += $value * $quiet[$step] / count($loud);
        }
        self::assertGreaterThan(0.9, $likeness);
    }

    public function test_silence_and_less_than_a_second_are_of_no_use(): void
    {
        self::assertFalse(GuideTrack::ofBytes(str_repeat("\0", 80_000))->hasUsableSound());
        self::assertFalse(GuideTrack::ofBytes(pack('s*', ...array_slice(Noise::speech(2, 3), 0, 7000)))->hasUsableSound());
        self::assertTrue(GuideTrack::ofBytes(pack('s*', ...Noise::speech(3, 3)))->hasUsableSound());
        self::assertSame(0, GuideTrack::ofBytes("\1")->samples(), 'half a sample is none');
    }

    public function test_what_cannot_be_decoded_says_so(): void
    {
        $this->expectException(UnableToReadMedia::class);
        GuideTrack::decode($this->file('no.wav', 'no sound at all'), 1);
    }
}
