<?php

declare(strict_types=1);

namespace Tests\App\Support;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Footage\MediaRecipe;
use App\Models\Clip;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Process;
use Tests\Browser\Support\TestCards;

/** Clips whose every frame carries its number, and whose sound is noise of which every stretch is unlike every other. */
trait NumberedMedia
{
    private const FRAMES = 100;

    /** @param  array<string, mixed>  $more */
    private function shot(string $name, string $device, int $at, int $take, array $more = []): Clip
    {
        $clip = $this->clip(
            $name,
            $device,
            $at,
            self::FRAMES / 25,
            $this->take('3', $take),
            $more + [
                'frames' => self::FRAMES,
                'rate_num' => 25,
                'rate_den' => 1,
                'proxied_at' => now(),
                'channels' => [['index' => 1, 'name' => 'L'], ['index' => 2, 'name' => 'R']],
            ],
        );
        TestCards::numbered($this->folder . '/made', $name, '25', '10:00:00:00', self::FRAMES);
        $media = MediaFolder::of($clip);
        self::ffmpeg([
            ...Ffmpeg::input("$this->folder/made/$name.mov"),
            ...['-map', '0:v', '-c:v', 'libx264', '-bf', '0', '-g', '12', '-pix_fmt', 'yuv420p'],
            ...MediaRecipe::timecode($clip),
            $media->write(MediaFile::Proxy),
        ]);
        foreach ([1, 2] as $channel) {
            self::ffmpeg([
                ...['-f', 'lavfi', '-i', 'anoisesrc=r=48000:a=0.4:d=4:seed=' . ($at + $channel)],
                ...['-c:a', 'flac', '-sample_fmt', 's16', '-strict', '-2', $media->write(MediaFile::Channel, $channel)],
            ]);
        }

        return $clip;
    }

    /** @param  list<string>  $arguments */
    private static function ffmpeg(array $arguments): string
    {
        $run = Process::run(['ffmpeg', '-v', 'error', '-y', ...$arguments], null, 120);
        self::assertSame(0, $run['status'], $run['error']);

        return $run['output'];
    }

    /** @return list<int> the number that each frame carries */
    private static function numbers(string $file): array
    {
        $bits = TestCards::BITS;
        // One point in the middle of each column.
        $raw = self::ffmpeg(['-i', $file, '-vf', "scale=$bits:1:flags=area,format=gray", '-f', 'rawvideo', '-']);
        $numbers = [];
        foreach (str_split($raw, $bits) as $row) {
            $number = 0;
            foreach (str_split($row) as $bit => $value) {
                $number += ord($value) > 127 ? 2 ** $bit : 0;
            }
            $numbers[] = $number;
        }

        return $numbers;
    }
}
