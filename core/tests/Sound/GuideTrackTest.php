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

    public function test_any_recording_is_brought_to_one_form_and_the_channels_that_have_sound_are_heard(): void
    {
        $samples = '';
        for ($i = 0; $i < 48_000; $i++) {
            $samples .= pack('vvvv', 0, 0, 0, (int) (8000 * sin($i / 20)) & 0xffff);
        }
        $track = GuideTrack::decode(WavBuilder::pcm(0, 4, 16, 48_000, $samples)->write($this->folder . '/four.wav'), [4]);
        self::assertSame([8000, 100], [$track->samples(), $track->steps()]);
        self::assertEqualsWithDelta(8000, max(unpack('s*', $track->slice(0, 8000)) ?: [0]), 600, 'the one channel that has sound');
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
        $quiet = GuideTrack::ofBytes(pack('s*', ...array_map(static fn(int $sample): int => intdiv($sample, 4), $speech)))->shape()[0];
        $likeness = 0.0;
        foreach ($loud as $step => $value) {
            $likeness += ($value * $quiet[$step]) / count($loud);
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

    public function test_a_kept_shape_is_the_one_that_would_be_made_and_one_of_other_samples_is_not_used(): void
    {
        $file = $this->folder . '/guide';
        file_put_contents($file, pack('s*', ...Noise::speech(4, 5)));
        $made = GuideTrack::ofFile($file);
        $made->keepShape();
        self::assertSame($made->shape(), GuideTrack::ofFile($file)->shape());
        file_put_contents($file, pack('s*', ...Noise::speech(3, 6)));
        self::assertCount(300, GuideTrack::ofFile($file)->shape()[0]);
    }

    public function test_a_stretch_of_a_file_is_read_without_the_rest_and_ends_where_the_file_does(): void
    {
        file_put_contents($this->folder . '/guide', pack('s*', ...range(0, 99)));
        $track = GuideTrack::ofFile($this->folder . '/guide');
        self::assertSame([1 => 40, 41], unpack('s*', $track->slice(40, 2)));
        self::assertSame([1 => 0, 1], unpack('s*', $track->slice(-3, 5)));
        self::assertSame([1 => 99], unpack('s*', $track->slice(99, 50)));
        self::assertSame('', $track->slice(100, 5));
    }

    public function test_what_cannot_be_decoded_says_so(): void
    {
        $this->expectException(UnableToReadMedia::class);
        GuideTrack::decode($this->file('no.wav', 'no sound at all'), [1]);
    }
}
