<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Media;

use Cartella\Core\Media\PeakFile;
use Cartella\Core\Media\Probe;
use Cartella\Core\Process;
use Cartella\Core\Tests\Support\Folder;
use Cartella\Core\Tests\Support\WavBuilder;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ProbePictureTest extends TestCase
{
    use Folder;

    /** @return array<string, array{string, string, string, string}> */
    public static function clips(): array
    {
        return [
            '23.976' => ['24000/1001', '10:00:00:00', '23.976', '10:00:00:00'],
            '25' => ['25', '23:59:59:20', '25', '23:59:59:20'],
            '29.97 drop' => ['30000/1001', '01:02:03;04', '29.97df', '01:02:03;04'],
        ];
    }

    #[DataProvider('clips')]
    public function test_a_picture_gives_its_rate_its_exact_frames_and_its_timecode_track(
        string $rate,
        string $timecode,
        string $label,
        string $start,
    ): void {
        $file = $this->folder . '/clip.mov';
        $made = Process::run([
            'ffmpeg',
            '-v',
            'error',
            '-f',
            'lavfi',
            '-i',
            "testsrc=size=64x36:rate=$rate",
            '-frames:v',
            '37',
            '-timecode',
            $timecode,
            '-c:v',
            'mpeg4',
            $file,
        ]);
        self::assertSame(0, $made['status'], $made['error']);
        $info = Probe::file($file);
        self::assertSame('picture', $info->kind);
        self::assertSame($label, $info->rate?->label());
        self::assertSame(37, $info->frames);
        self::assertSame(Ticks::ofFrames(37, FrameRate::parse($label)), $info->durationTicks);
        self::assertSame($start, $info->startTimecode);
        self::assertSame('tmcd', $info->startSource);
    }

    public function test_a_file_of_a_variable_rate_lasts_as_long_as_its_own_timestamps_say(): void
    {
        // Half of its pictures are left out after two seconds, as a screen that hardly changes is written.
        $file = "$this->folder/screen.mp4";
        $made = Process::run([
            ...['ffmpeg', '-v', 'error', '-f', 'lavfi', '-i', 'testsrc=size=64x36:rate=30', '-t', '10'],
            ...['-vf', "select='lt(t,2)+not(mod(n,2))'", '-fps_mode', 'vfr', '-c:v', 'libx264', '-pix_fmt', 'yuv420p', $file],
        ]);
        self::assertSame(0, $made['status'], $made['error']);
        $info = Probe::file($file);
        self::assertEqualsWithDelta(9.95, $info->durationTicks / Ticks::PER_SECOND, 0.1, 'to the last picture, and a frame of it');
        self::assertSame($info->durationTicks, Ticks::ofFrames((int) $info->frames, $info->rate ?? self::fail('no rate')));
        self::assertSame([], $info->problems);
    }

    public function test_a_timecode_that_stands_in_a_matroska_files_tags_is_its_start(): void
    {
        $file = "$this->folder/clip.mkv";
        $made = Process::run([
            ...['ffmpeg', '-v', 'error', '-f', 'lavfi', '-i', 'testsrc=size=64x36:rate=25', '-frames:v', '30'],
            ...['-metadata', 'timecode=09:12:10:05', '-c:v', 'mpeg4', $file],
        ]);
        self::assertSame(0, $made['status'], $made['error']);
        self::assertSame('09:12:10:05', Probe::file($file)->startTimecode);
    }

    public function test_peaks_halve_from_level_to_level_and_keep_the_loudest_sample(): void
    {
        $samples = '';
        for ($i = 0; $i < 1000; $i++) {
            $samples .= pack('v', $i === 700 ? 30_000 : 0);
        }
        $file = WavBuilder::pcm(1000, 1, 16, 48_000, $samples)->write($this->folder . '/click.wav');
        $facts = PeakFile::make($file, $this->folder . '/peaks');
        self::assertSame(['channels' => 1, 'buckets' => 4, 'bucket_samples' => 256, 'levels' => 3], $facts);
        $bytes = (string) file_get_contents($this->folder . '/peaks');
        self::assertSame('CPK1', substr($bytes, 0, 4));
        $highs = array_map(static fn(int $bucket): int => unpack('v', $bytes, 24 + 12 + $bucket * 6 + 2)[1], range(0, 3));
        self::assertSame([0, 0, 30_000, 0], $highs);
        self::assertSame(30_000, unpack('v', $bytes, strlen($bytes) - 4)[1], 'the topmost level holds it too');
    }
}
