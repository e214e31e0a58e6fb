<?php

declare(strict_types=1);

namespace Tests\App\Cards;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Models\Clip;
use Cartella\Core\Media\FrameMap;
use Cartella\Core\Process;
use Cartella\Core\Time\Ticks;
use Tests\App\TestCase;

/** A phone writes a picture when it has one: ten minutes of that through the real jobs. */
final class VariableRateTest extends TestCase
{
    private const BEEP = 597.0;

    public function test_each_frame_shows_the_picture_of_the_map_and_sound_is_in_step_after_ten_minutes(): void
    {
        mkdir($this->folder . '/bench/P001');
        $path = $this->folder . '/bench/P001/VID_1.mp4';
        // Of thirty pictures a second some two in five are left out; each is as bright as its own number says.
        self::ffmpeg([
            ...['-f', 'lavfi', '-i', "color=black:s=32x18:r=30:d=600,geq=lum='16+mod(N*7,200)':cb=128:cr=128"],
            ...['-f', 'lavfi', '-i', sprintf("aevalsrc='0.5*sin(2*PI*1000*t)*between(t,%1\$f,%1\$f+0.1)':s=48000:d=600", self::BEEP)],
            ...['-vf', "select='gt(random(3),0.4)'", '-fps_mode', 'vfr', '-c:v', 'libx264', '-preset', 'ultrafast', '-qp', '4'],
            ...['-pix_fmt', 'yuv420p', '-c:a', 'aac', $path],
        ]);
        $this->as()
            ->postJson($this->onDay('volumes/P001/offload'), ['roll' => 'P001', 'device' => 'A'])
            ->assertStatus(202);
        $clip = Clip::query()->sole();
        self::assertTrue($clip->facts['variable_rate']);
        self::assertEqualsWithDelta(600, $clip->duration_ticks / Ticks::PER_SECOND, 0.2);
        $media = MediaFolder::of($clip);
        $map = FrameMap::ofBytes((string) file_get_contents($media->read(MediaFile::Frames)));
        self::assertCount((int) $clip->frames, $map->pictures);

        // Each of the proxy's frames is as bright as the picture that the map says.
        $times = array_map(floatval(...), explode("\n", trim(self::ask('packet=pts_time', $path))));
        sort($times);
        $shown = self::brightness($media->read(MediaFile::Proxy));
        self::assertCount((int) $clip->frames, $shown);
        $wrong = 0;
        foreach ($shown as $frame => $value) {
            $number = (int) round(30 * $times[$map->pictures[$frame]]);
            $wrong += (int) (abs($value - (16 + (($number * 7) % 200))) > 3);
        }
        self::assertSame(0, $wrong);

        // The beep of the last seconds begins at the frame at which its picture stands.
        $sound = self::ffmpeg([...['-i', $media->read(MediaFile::Channel, 1), '-f', 's16le', '-ac', '1', '-ar', '48000', '-']]);
        $begins = null;
        foreach (unpack('s*', substr($sound, 2 * 48_000 * 590)) ?: [] as $at => $value) {
            if (abs($value) > 3000) {
                $begins = 590 + $at / 48_000;
                break;
            }
        }
        self::assertEqualsWithDelta(self::BEEP, $begins, 0.03, 'the encoder itself takes a few samples');
        $rate = $clip->rate();
        $frame = (int) floor((self::BEEP * $rate?->num) / $rate?->den);
        self::assertEqualsWithDelta(self::BEEP, $times[$map->pictures[$frame]], 0.1);
    }

    /** @return list<int> mean brightness of each frame, as it is coded */
    private static function brightness(string $path): array
    {
        $bytes = self::ffmpeg([
            '-i',
            $path,
            '-vf',
            'scale=1:1:flags=area',
            '-fps_mode',
            'passthrough',
            '-f',
            'rawvideo',
            '-pix_fmt',
            'yuv420p',
            '-',
        ]);

        // One brightness and two colours for each.
        return array_map(ord(...), array_column(array_chunk(str_split($bytes), 3), 0));
    }

    private static function ask(string $what, string $path): string
    {
        $run = Process::run(['ffprobe', '-v', 'error', '-select_streams', 'v:0', '-show_entries', $what, '-of', 'csv=p=0', $path]);
        self::assertSame(0, $run['status'], $run['error']);

        return $run['output'];
    }

    /** @param  list<string>  $arguments */
    private static function ffmpeg(array $arguments): string
    {
        $run = Process::run(['ffmpeg', '-v', 'error', '-nostdin', '-y', ...$arguments], outputLimit: 128 << 20);
        self::assertSame(0, $run['status'], $run['error']);

        return $run['output'];
    }
}
