<?php

declare(strict_types=1);

namespace Tests\App\Support;

use App\Domain\Handoff\MixedProxy;
use App\Models\Clip;
use Cartella\Core\Process;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Tests\Support\WavBuilder;

/** Small real recordings on the bench: a recorder file with iXML, and cameras that heard the same from their place. */
trait MakesMedia
{
    /** @return list<int> the stage's sound at 8 kHz */
    protected function stage(int $seconds, int $seed): array
    {
        return Noise::speech($seconds, $seed);
    }

    /** @param  list<int>  $samples */
    protected function recorder(string $path, array $samples, int $startSecond, string $ixml): void
    {
        $this->folderOf($path);
        WavBuilder::pcm(0, 1, 16, 8000, pack('s*', ...$samples))
            ->withBext(8000 * $startSecond)
            ->withIxml('<SPEED><TIMECODE_RATE>25/1</TIMECODE_RATE></SPEED>' . $ixml)
            ->write($this->folder . '/bench/' . $path);
    }

    /** @param  list<int>  $samples */
    protected function camera(string $path, array $samples, string $timecode): void
    {
        $file = $this->folderOf($path);
        $sound = WavBuilder::pcm(0, 1, 16, 8000, pack('s*', ...$samples))->write($this->folder . '/sound.wav');
        $run = Process::run([
            'ffmpeg',
            '-v',
            'error',
            '-y',
            '-f',
            'lavfi',
            '-i',
            'testsrc=size=128x72:rate=25',
            '-i',
            $sound,
            '-t',
            sprintf('%.3f', count($samples) / 8000),
            '-timecode',
            $timecode,
            '-metadata',
            'creation_time=2026-10-05T09:00:00Z',
            '-c:v',
            'libx264',
            '-preset',
            'ultrafast',
            '-pix_fmt',
            'yuv420p',
            '-c:a',
            'pcm_s16le',
            $file,
        ]);
        self::assertSame(0, $run['status'], $run['error']);
    }

    /** A proxy as it goes into a package, with what players let hear under it. */
    protected function mixed(Clip $clip): string
    {
        $target = $this->folder . '/mixed.mp4';
        app(MixedProxy::class)->write($clip, MixedProxy::piecesOf($clip) ?: self::fail('no recording lies under it'), $target);

        return $target;
    }

    protected function plain(string $path, string $content): void
    {
        file_put_contents($this->folderOf($path), $content);
    }

    private function folderOf(string $path): string
    {
        $file = $this->folder . '/bench/' . $path;
        if (!is_dir(dirname($file))) {
            mkdir(dirname($file), 0777, true);
        }

        return $file;
    }
}
