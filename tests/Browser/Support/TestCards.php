<?php

declare(strict_types=1);

namespace Tests\Browser\Support;

use Cartella\Core\Process;
use Cartella\Core\Tests\Support\WavBuilder;

/** Cards with recordings that a machine can read: pictures that carry their frame number, sound that beeps with a flash. */
final class TestCards
{
    /** Columns of the pattern; column k is white when bit k of the frame number is set. */
    public const BITS = 12;

    public static function numbered(string $folder, string $name, string $rate, string $timecode, int $frames): void
    {
        self::make($folder);
        $columns = sprintf('255*mod(floor(N/pow(2\\,floor(X*%d/W)))\\,2)', self::BITS);
        self::ffmpeg([
            ...['-f', 'lavfi', '-i', "color=black:size=480x270:rate=$rate", '-f', 'lavfi', '-i', 'sine=frequency=330:sample_rate=48000'],
            ...['-vf', "geq=lum='$columns':cb=128:cr=128", '-frames:v', (string) $frames, '-shortest', '-timecode', $timecode],
            ...['-c:a', 'pcm_s16le', "$folder/$name.mov"],
        ]);
    }

    /**
     * A picture that flashes for two frames every five seconds, and a recorder file that beeps at the same moments on its first channel
     * and hums on its second.
     */
    public static function flashing(string $camera, string $recorder, int $seconds): void
    {
        self::make($camera);
        self::make($recorder);
        // The recorder starts two seconds before the camera, so that the lay has an offset to get right.
        $samples = '';
        for ($i = 0, $n = ($seconds + 4) * 48_000; $i < $n; $i++) {
            $since = ($i - 96_000) % 240_000;
            $beep = $i >= 96_000 && $since < 3_840 ? (int) (20_000 * cos($since * 0.13)) : 0;
            $samples .= pack('vv', $beep & 0xffff, ((int) (3_000 * sin($i * 0.03))) & 0xffff);
        }
        WavBuilder::pcm(0, 2, 16, 48_000, $samples)
            ->withBext(48_000 * (11 * 3600))
            ->withIxml('<SCENE>99</SCENE><TAKE>1</TAKE><SPEED><TIMECODE_RATE>25/1</TIMECODE_RATE></SPEED>')
            ->write("$recorder/99-T01.wav");
        self::ffmpeg([
            ...[
                '-f',
                'lavfi',
                '-i',
                'color=black:size=320x180:rate=25',
                '-vf',
                "geq=lum='if(lt(mod(N\\,125)\\,2)\\,235\\,16)':cb=128:cr=128",
            ],
            ...['-t', (string) $seconds, '-timecode', '11:00:02:00', "$camera/99_T01_A.mov"],
        ]);
    }

    /** Columns of an event's pictures; the number is the frame's and, for each camera before, as many more as {@see self::MOST}. */
    public const EVENT_BITS = 15;

    public const MOST = 6_000;

    /** Of each camera of the event: its first timecode, after how many frames of the event that is, and how long it rolls, seconds. */
    public const EVENT = ['A' => ['14:00:00:00', 0, 240], 'B' => ['14:00:04:10', 110, 235.6], 'C' => ['14:00:01:00', 25, 239]];

    /** An event of four minutes: three cameras of their own start, and a recorder that beeps every five seconds of it. */
    public static function event(string $bench): void
    {
        foreach (array_keys(self::EVENT) as $number => $letter) {
            [$timecode, , $seconds] = self::EVENT[$letter];
            self::make("$bench/{$letter}095");
            $columns = sprintf('255*mod(floor((N+%d)/pow(2\\,floor(X*%d/W)))\\,2)', $number * self::MOST, self::EVENT_BITS);
            self::ffmpeg([
                ...['-f', 'lavfi', '-i', 'color=black:size=240x4:rate=25'],
                ...[
                    '-vf',
                    "geq=lum='$columns':cb=128:cr=128,scale=240:136:flags=neighbor",
                    '-t',
                    (string) $seconds,
                    '-timecode',
                    $timecode,
                ],
                "$bench/{$letter}095/95_T01_$letter.mov",
            ]);
        }
        self::make("$bench/S095");
        $beep = '';
        for ($i = 0; $i < 3_840; $i++) {
            $beep .= pack('v', ((int) (20_000 * cos($i * 0.13))) & 0xffff);
        }
        WavBuilder::pcm(0, 1, 16, 48_000, str_repeat("\0", 2 * 96_000) . str_repeat($beep . str_repeat("\0", 2 * 236_160), 49))
            ->withBext(48_000 * (14 * 3600 - 2))
            ->withIxml('<SCENE>95</SCENE><TAKE>1</TAKE><SPEED><TIMECODE_RATE>25/1</TIMECODE_RATE></SPEED>')
            ->write("$bench/S095/95-T01.wav");
    }

    /** @param  non-empty-list<string>  $arguments  the file last */
    private static function ffmpeg(array $arguments): void
    {
        $file = array_pop($arguments);
        $run = Process::run([
            ...['ffmpeg', '-v', 'error', '-y', ...$arguments],
            ...['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', $file],
        ]);
        if ($run['status'] !== 0) {
            throw new \RuntimeException($run['error']);
        }
    }

    private static function make(string $folder): void
    {
        if (!is_dir($folder)) {
            mkdir($folder, 0777, true);
        }
    }
}
