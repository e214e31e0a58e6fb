<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Media;

use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Media\Probe;
use Cartella\Core\Process;
use Cartella\Core\Tests\Support\Folder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Files that are not what their names say, made to have ffmpeg open another file: a sound that lies outside the card. */
final class HostileMediaTest extends TestCase
{
    use Folder;

    private function secret(): string
    {
        $file = $this->folder . '/secret.ts';
        $made = Process::run([
            'ffmpeg',
            '-v',
            'error',
            '-f',
            'lavfi',
            '-i',
            'testsrc=size=64x36:rate=25',
            '-frames:v',
            '25',
            '-c:v',
            'mpeg2video',
            '-f',
            'mpegts',
            $file,
        ]);
        self::assertSame(0, $made['status'], $made['error']);

        return $file;
    }

    /** @return array<string, array{string, string}> */
    public static function disguises(): array
    {
        return [
            'a playlist' => ['clip.mov', "#EXTM3U\n#EXT-X-VERSION:3\n#EXT-X-TARGETDURATION:2\n#EXTINF:1.0,\nfile:SECRET\n#EXT-X-ENDLIST\n"],
            'a playlist as a transport stream' => [
                'clip.mts',
                "#EXTM3U\n#EXT-X-TARGETDURATION:2\n#EXTINF:1.0,\nsecret.ts\n#EXT-X-ENDLIST\n",
            ],
            'a script of parts' => ['clip.mp4', "ffconcat version 1.0\nfile secret.ts\n"],
            'a manifest of a stream' => [
                'clip.mp4',
                '<?xml version="1.0"?><MPD xmlns="urn:mpeg:dash:schema:mpd:2011" type="static" ' .
                'mediaPresentationDuration="PT1S"><Period><AdaptationSet mimeType="video/mp2t"><Representation ' .
                'id="1" bandwidth="1"><BaseURL>secret.ts</BaseURL><SegmentList><SegmentURL ' .
                'media="secret.ts"/></SegmentList></Representation></AdaptationSet></Period></MPD>',
            ],
            'a numbered picture that asks for its neighbours' => ['frame%03d.png', 'no picture'],
            'text' => ['clip.avi', "TITLE: DAY 1\n001  A001 V C 01:00:00:00\n"],
        ];
    }

    #[DataProvider('disguises')]
    public function test_what_would_open_another_file_is_no_media(string $name, string $content): void
    {
        $secret = $this->secret();
        $this->file('frame001.png', (string) file_get_contents($secret));
        $info = Probe::file($this->file($name, str_replace('SECRET', $secret, $content)));
        self::assertSame(['other', 1], [$info->kind, count($info->problems)]);
    }

    public function test_parts_of_one_recording_are_read_one_after_the_other_whatever_they_are_called(): void
    {
        $part = $this->file("it's a 'name'\nof two lines.mts", (string) file_get_contents($this->secret()));
        mkdir($this->folder . '/links');
        $run = Process::run([
            ...Ffmpeg::command(),
            ...Ffmpeg::inputOfParts([$part, $part], $this->folder . '/links'),
            '-map',
            '0:v:0',
            '-f',
            'rawvideo',
            '-pix_fmt',
            'gray',
            '-',
        ]);
        self::assertSame([0, 50 * 64 * 36], [$run['status'], strlen($run['output'])], $run['error']);
    }

    public function test_a_program_sees_no_secret_of_ours(): void
    {
        putenv('DB_PASSWORD=of-the-desk');
        try {
            self::assertStringNotContainsString('of-the-desk', Process::run(['env'])['output']);
        } finally {
            putenv('DB_PASSWORD');
        }
    }

    public function test_a_decoder_has_bounds_on_its_memory_and_on_what_it_writes(): void
    {
        $limits = Process::run([...array_slice(Ffmpeg::command(), 0, -5), 'cat', '/proc/self/limits'])['output'];
        self::assertMatchesRegularExpression('/Max address space +6442450944/', $limits);
        self::assertMatchesRegularExpression('/Max file size +274877906944/', $limits);
    }
}
