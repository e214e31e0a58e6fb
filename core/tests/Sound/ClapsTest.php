<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Sound;

use Cartella\Core\Media\Flashes;
use Cartella\Core\Process;
use Cartella\Core\Sound\Claps;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Tests\Support\Folder;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ClapsTest extends TestCase
{
    use Folder;

    private const RATE = GuideTrack::SAMPLE_RATE;

    /**
     * Room tone with words: bursts that begin as suddenly as a clap and go on for a third of a second.
     *
     * @return list<float>
     */
    private static function speech(int $seconds, float $tone = 20.0): array
    {
        mt_srand(5);
        $samples = array_map(static fn(): float => ($tone * mt_rand(-100, 100)) / 100, range(1, $seconds * self::RATE));
        for ($word = 1; $word < 2 * $seconds; $word++) {
            $at = (int) ($word * 0.5 * self::RATE) + mt_rand(0, 1200);
            for ($i = 0; $i < 2600 && $at + $i < count($samples); $i++) {
                $samples[$at + $i] += 4000 * (mt_rand(-100, 100) / 100) * exp(-$i / 1800);
            }
        }

        return $samples;
    }

    /** @param  list<float>  $samples */
    private static function track(array $samples): GuideTrack
    {
        return GuideTrack::ofBytes(
            pack('s*', ...array_map(static fn(float $value): int => (int) max(-32_768, min(32_767, $value)), $samples)),
        );
    }

    /**
     * @param  list<float>  $samples
     * @return list<float>
     */
    private static function withClap(array $samples, int $at, float $level): array
    {
        for ($i = 0; $i < 500; $i++) {
            $samples[$at + $i] += $level * ($i % 3 === 0 ? 1 : -0.7) * exp(-$i / 70);
        }

        return $samples;
    }

    /** @return array<string, array{float, float}> level and room tone */
    public static function levels(): array
    {
        return ['near' => [26_000.0, 20.0], 'across the room' => [6_000.0, 20.0], 'in a noisy street' => [20_000.0, 300.0]];
    }

    #[DataProvider('levels')]
    public function test_a_clap_before_the_words_is_offered_first_and_to_a_few_milliseconds(float $level, float $tone): void
    {
        $speech = self::speech(4, $tone);
        $silence = array_map(static fn(): float => ($tone * mt_rand(-100, 100)) / 100, range(1, 2 * self::RATE));
        $claps = Claps::of(self::track([...self::withClap($silence, 9_600, $level), ...$speech]));
        self::assertNotSame([], $claps);
        self::assertEqualsWithDelta(1.2, $claps[0]['ticks'] / Ticks::PER_SECOND, 0.005);
    }

    public function test_a_faint_clap_over_hiss_is_offered_to_a_few_milliseconds(): void
    {
        mt_srand(11);
        // A peak of 1 000, 30 dB under full scale, and hiss whose power is a tenth of its own.
        $hiss = array_map(static fn(): float => 2.7 * mt_rand(-100, 100), range(1, 4 * self::RATE));
        $claps = Claps::of(self::track(self::withClap($hiss, 12_345, 1_000.0)));
        self::assertCount(1, $claps);
        self::assertEqualsWithDelta(12_345 / self::RATE, $claps[0]['ticks'] / Ticks::PER_SECOND, 0.005);
    }

    public function test_a_clap_while_somebody_talks_is_offered_to_a_few_milliseconds(): void
    {
        mt_srand(12);
        // Voices hold little of what is sharp: each sample follows the one before.
        $last = 0.0;
        $voice = [];
        foreach (self::speech(8) as $value) {
            $voice[] = $last = 0.93 * $last + 0.5 * $value;
        }
        $claps = Claps::of(self::track(self::withClap($voice, 30_000, 20_000.0)));
        self::assertNotSame([], $claps);
        self::assertEqualsWithDelta(30_000 / self::RATE, $claps[0]['ticks'] / Ticks::PER_SECOND, 0.005);
    }

    public function test_words_are_hardly_ever_taken_for_a_clap(): void
    {
        self::assertLessThanOrEqual(1, count(Claps::of(self::track(self::speech(60)))));
        self::assertSame([], Claps::of(self::track(array_fill(0, 16_000, 0.0))));
        self::assertSame([], Claps::of(GuideTrack::ofBytes('')));
    }

    public function test_two_claps_of_one_slate_that_bounced_are_one(): void
    {
        $silence = array_map(static fn(): float => (15.0 * mt_rand(-100, 100)) / 100, range(1, 3 * self::RATE));
        self::assertCount(1, Claps::of(self::track(self::withClap(self::withClap($silence, 9_600, 20_000), 10_800, 12_000))));
    }

    public function test_a_light_that_was_on_for_one_frame_is_told_by_that_frame_while_others_move(): void
    {
        $file = $this->folder . '/light.mp4';
        $made = Process::run([
            ...['ffmpeg', '-v', 'error', '-nostdin', '-y', '-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=4'],
            ...['-vf', "drawbox=x=20:y=20:w=90:h=60:color=white:t=fill:enable='eq(n,53)'", '-pix_fmt', 'yuv420p', $file],
        ]);
        self::assertSame(0, $made['status'], $made['error']);
        self::assertSame(53, Flashes::ofFile($file)[0]['frame']);
    }

    public function test_the_frame_in_which_a_slate_closes_is_offered_before_that_in_which_it_leaves(): void
    {
        $file = $this->folder . '/slate.mp4';
        $made = Process::run([
            'ffmpeg',
            '-v',
            'error',
            '-nostdin',
            '-y',
            '-f',
            'lavfi',
            '-i',
            'color=c=0x405060:s=320x180:r=25:d=4',
            '-f',
            'lavfi',
            '-i',
            'color=c=white:s=130x10:r=25:d=4',
            '-f',
            'lavfi',
            '-i',
            'color=c=0xe8e0d0:s=130x60:r=25:d=4',
            '-filter_complex',
            "[0][2]overlay=90:90:enable='lt(n,60)'[board];[board][1]overlay=90:'if(lt(n,30),44,if(lt(n,36)," .
            "44+(n-29)*6,80))':enable='lt(n,60)'",
            '-pix_fmt',
            'yuv420p',
            $file,
        ]);
        self::assertSame(0, $made['status'], $made['error']);
        $flashes = Flashes::ofFile($file);
        self::assertEqualsWithDelta(35, $flashes[0]['frame'], 1);
        self::assertContains(60, array_column($flashes, 'frame'));
    }

    public function test_the_slate_is_the_first_clear_clap_of_a_stretch_and_of_a_tail_slate_the_last(): void
    {
        $moments = array_map(
            static fn(int $ticks, float $strength): array => compact('ticks', 'strength'),
            [50, 10, 30, 40, 90],
            [8.0, 2.0, 10.0, 7.0, 99.0],
        );
        self::assertSame(30, Claps::ofSlate($moments, 5, 80));
        self::assertSame(50, Claps::ofSlate($moments, 5, 80, isTail: true));
        self::assertNull(Claps::ofSlate($moments, 60, 90));
    }
}
