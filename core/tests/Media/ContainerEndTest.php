<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Media;

use Cartella\Core\Custody\Survey;
use Cartella\Core\Media\ContainerEnd;
use Cartella\Core\Process;
use Cartella\Core\Tests\Support\Folder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ContainerEndTest extends TestCase
{
    use Folder;

    /** @return array<string, array{string, list<string>}> */
    public static function containers(): array
    {
        return [
            'MXF' => ['clip.mxf', ['-c:v', 'mpeg2video', '-c:a', 'pcm_s16le', '-ar', '48000']],
            'MTS' => ['clip.mts', ['-c:v', 'mpeg2video', '-c:a', 'ac3', '-mpegts_m2ts_mode', '1', '-f', 'mpegts']],
            'MTS of plain packets' => ['clip.mts', ['-c:v', 'mpeg2video', '-c:a', 'mp2', '-f', 'mpegts']],
            'AVI' => ['clip.avi', ['-c:v', 'mjpeg', '-c:a', 'pcm_s16le']],
        ];
    }

    /** @param  list<string>  $coding */
    #[DataProvider('containers')]
    public function test_a_recording_that_stops_in_the_middle_is_told_and_a_whole_one_is_not(string $name, array $coding): void
    {
        $file = $this->folder . '/' . $name;
        $made = Process::run([
            'ffmpeg',
            '-v',
            'error',
            '-f',
            'lavfi',
            '-i',
            'nullsrc=size=320x180:rate=25,noise=alls=60:allf=t',
            '-f',
            'lavfi',
            '-i',
            'sine=frequency=440:sample_rate=48000',
            '-t',
            '2',
            '-b:v',
            '6M',
            ...$coding,
            $file,
        ]);
        self::assertSame(0, $made['status'], $made['error']);
        self::assertTrue(ContainerEnd::isWhole($file));
        self::assertSame([], Survey::of($this->folder)->problems);
        $bytes = (string) file_get_contents($file);
        foreach ([0.3, 0.5, 0.9] as $part) {
            // At the end of a packet too, which is where a camera that loses its battery stops.
            $length = (int) (strlen($bytes) * $part);
            foreach ([$length, $length - ($length % (188 * 192))] as $cut) {
                file_put_contents($file, substr($bytes, 0, $cut));
                self::assertFalse(ContainerEnd::isWhole($file), "cut at $cut of " . strlen($bytes));
            }
        }
        self::assertSame(['unfinished'], array_column(Survey::of($this->folder)->problems, 'kind'));
    }
}
