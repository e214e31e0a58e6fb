<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Sound;

use Cartella\Core\Media\Probe;
use Cartella\Core\Process;
use Cartella\Core\Sound\ChannelKind;
use Cartella\Core\Sound\GuideChannels;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Sound\Ltc;
use Cartella\Core\Tests\Support\Folder;
use Cartella\Core\Tests\Support\LtcWriter;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Tests\Support\WavBuilder;
use Cartella\Core\Time\FrameRate;
use PHPUnit\Framework\TestCase;

final class GuideChannelsTest extends TestCase
{
    use Folder;

    /** @param  list<list<int>>  $channels  at 8 kHz */
    private function judged(array $channels): GuideChannels
    {
        $bytes = '';
        foreach (array_keys($channels[0]) as $at) {
            foreach ($channels as $samples) {
                $bytes .= pack('v', $samples[$at] & 0xffff);
            }
        }

        return GuideChannels::of($this->file('all', $bytes), count($channels));
    }

    /** @return list<int> timecode as an 8 kHz guide hears it */
    private static function timecode(int $seconds): array
    {
        $bytes = LtcWriter::write(FrameRate::parse('25'), '10:00:00:00', sprintf('10:00:%02d:24', $seconds - 1), db: -6);
        $samples = array_values(unpack('s*', $bytes) ?: []);
        $heard = [];
        for ($at = 0; $at + 6 <= count($samples); $at += 6) {
            $heard[] = intdiv(array_sum(array_slice($samples, $at, 6)), 6);
        }

        return array_slice(array_pad($heard, $seconds * 8000, 0), 0, $seconds * 8000);
    }

    /** @return list<int> */
    private static function quiet(int $seconds, int $most, int $seed): array
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));

        return array_map(static fn(): int => $random->getInt(-$most, $most), range(1, $seconds * 8000));
    }

    public function test_timecode_far_above_the_microphone_is_no_guide(): void
    {
        $microphone = array_map(static fn(int $sample): int => intdiv($sample, 20), Noise::speech(20, 3));
        $judged = $this->judged([self::timecode(20), $microphone]);
        self::assertSame([ChannelKind::Steady, ChannelKind::Sound], $judged->kinds);
        self::assertSame([2], $judged->chosen());
    }

    public function test_timecode_that_begins_late_is_no_guide_either(): void
    {
        $late = [...array_fill(0, 12 * 8000, 0), ...self::timecode(8)];
        self::assertSame([2], $this->judged([$late, Noise::speech(20, 4)])->chosen());
    }

    public function test_hum_silence_and_a_bare_noise_floor_are_left_out(): void
    {
        $hum = array_map(static fn(int $at): int => (int) (6000 * sin($at / 2)), range(1, 20 * 8000));
        $judged = $this->judged([$hum, array_fill(0, 20 * 8000, 0), self::quiet(20, 30, 5), Noise::speech(20, 6)]);
        self::assertSame([ChannelKind::Steady, ChannelKind::Nothing, ChannelKind::Still, ChannelKind::Sound], $judged->kinds);
        self::assertSame([4], $judged->chosen());
    }

    public function test_several_microphones_are_taken_together_and_one_that_is_the_wrong_way_round_is_not(): void
    {
        $one = Noise::speech(20, 7);
        $far = Noise::heardFrom($one, 0.4, 60, 8);
        $turned = array_map(static fn(int $sample): int => -$sample, $one);
        self::assertSame([1, 2], $this->judged([$one, $far, $turned])->chosen());
    }

    public function test_the_tone_of_a_room_is_worth_hearing_where_nothing_else_is_and_timecode_never(): void
    {
        $judged = $this->judged([self::timecode(20), self::quiet(20, 30, 9)]);
        self::assertSame([2], ChannelKind::worth($judged->kinds));
        $known = $judged->withTimecode([1, 2]);
        self::assertSame([], ChannelKind::worth($known->kinds));
    }

    public function test_speech_hardly_over_its_noise_is_still_something_that_happens(): void
    {
        self::assertSame([ChannelKind::Sound], $this->judged([Noise::under(Noise::speech(20, 11), 6, 12)])->kinds);
    }

    public function test_a_stream_for_each_microphone_counts_through(): void
    {
        $speech = pack('s*', ...Noise::speech(4, 13));
        $inputs = [];
        foreach ([str_repeat("\0\0", 4 * 8000), $speech] as $number => $bytes) {
            array_push($inputs, '-i', WavBuilder::pcm(0, 1, 16, 8000, $bytes)->write("$this->folder/$number.wav"));
        }
        file_put_contents("$this->folder/ltc.s16", LtcWriter::write(FrameRate::parse('25'), '10:00:00:00', '10:00:03:24'));
        $run = Process::run([
            'ffmpeg',
            ...['-v', 'error', ...$inputs, '-f', 's16le', '-ar', '48000', '-ac', '1', '-i', "$this->folder/ltc.s16"],
            ...['-map', '0', '-map', '1', '-map', '2', '-c:a', 'pcm_s16le', '-ar', '48000', "$this->folder/three.mov"],
        ]);
        self::assertSame(0, $run['status'], $run['error']);
        $streams = Probe::file("$this->folder/three.mov")->audioStreams;
        self::assertSame([1, 1, 1], $streams);
        $track = GuideTrack::decode("$this->folder/three.mov", $streams);
        self::assertTrue($track->hasUsableSound());
        self::assertEqualsWithDelta(4 * 8000, $track->samples(), 2);
        self::assertSame('10:00:00:00', Ltc::ofFile("$this->folder/three.mov", 3, $streams)?->first);
        self::assertNull(Ltc::ofFile("$this->folder/three.mov", 2, $streams));
    }
}
