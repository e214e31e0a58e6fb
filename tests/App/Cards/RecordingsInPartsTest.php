<?php

declare(strict_types=1);

namespace Tests\App\Cards;

use App\Domain\Cards\CatalogueCardJob;
use App\Domain\Footage\ClipMedia;
use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Footage\Stores;
use App\Models\Clip;
use App\Models\Task;
use Cartella\Core\Media\Probe;
use Cartella\Core\Media\WavReader;
use Cartella\Core\Process;
use Cartella\Core\Tests\Support\WavBuilder;
use Cartella\Core\Time\Ticks;
use Tests\App\Support\MakesMedia;
use Tests\App\TestCase;

/** The same recording in several files is one clip, with all that it holds. */
final class RecordingsInPartsTest extends TestCase
{
    use MakesMedia;

    private function part(string $path, int $value, int $samples, int $startSample): void
    {
        $this->plain($path, '');
        WavBuilder::pcm(0, 1, 16, 8000, str_repeat(pack('v', $value), $samples))
            ->withBext($startSample)
            ->withIxml('<SPEED><TIMECODE_RATE>25/1</TIMECODE_RATE></SPEED>')
            ->write($this->folder . '/bench/' . $path);
    }

    private function offload(string $volume, string $device): void
    {
        $this->as()
            ->postJson($this->onDay("volumes/$volume/offload"), ['roll' => $volume, 'device' => $device])
            ->assertStatus(202);
    }

    public function test_tracks_in_a_file_each_become_one_clip_with_all_of_them(): void
    {
        foreach ([1, 2, 3] as $track) {
            $this->part("S001/T01_$track.wav", 1000 * $track, 8000, 8000 * 36_000);
        }
        $this->plain('S001/T01_1.txt', 'boom and two lavs');
        $this->offload('S001', 'S');
        $clip = Clip::query()->sole();
        self::assertSame(
            [['T01_1.wav', 'T01_2.wav', 'T01_3.wav'], ['T01_1.txt'], 3],
            [$clip->paths(), $clip->facts['sidecars'], count($clip->channels)],
        );
        $joined = WavReader::read(ClipMedia::soundFile($clip, new Stores()));
        self::assertSame([3, 8000, 8000 * 36_000], [$joined->format->channels, $joined->frames(), $joined->bext['time_reference'] ?? null]);
        self::assertFileExists(MediaFolder::of($clip)->read(MediaFile::Channel, 3));
        self::assertCount(3, (new Stores())->filesOf($clip));
    }

    public function test_sound_that_goes_on_in_a_second_file_is_one_clip_of_the_whole_length(): void
    {
        $this->part('S001/S001T02.wav', 500, 16_000, 8000 * 36_000);
        $this->part('S001/S001T02_2.wav', 900, 4000, 8000 * 36_000 + 16_000);
        $this->offload('S001', 'S');
        $clip = Clip::query()->sole();
        self::assertSame(2.5, $clip->duration_ticks / Ticks::PER_SECOND);
        self::assertSame(20_000, WavReader::read(ClipMedia::soundFile($clip, new Stores()))->frames());
        self::assertSame(2 * 20_000, filesize(MediaFolder::of($clip)->folder() . '/guide'));
    }

    public function test_a_picture_in_two_files_is_one_clip_whose_proxy_has_every_frame(): void
    {
        foreach (['001' => '10:00:00:00', '002' => '10:00:02:00'] as $count => $timecode) {
            $this->plain("A001/A001C003_$count.mov", '');
            $run = Process::run([
                'ffmpeg',
                '-v',
                'error',
                '-y',
                '-f',
                'lavfi',
                '-i',
                'testsrc=size=128x72:rate=25',
                '-t',
                '2',
                '-timecode',
                $timecode,
                '-c:v',
                'libx264',
                '-preset',
                'ultrafast',
                '-pix_fmt',
                'yuv420p',
                "$this->folder/bench/A001/A001C003_$count.mov",
            ]);
            self::assertSame(0, $run['status'], $run['error']);
        }
        $this->offload('A001', 'A');
        $clip = Clip::query()->sole();
        self::assertSame([100, 4 * Ticks::PER_SECOND, 2], [$clip->frames, $clip->duration_ticks, count($clip->paths())]);
        self::assertSame(100, Probe::file(MediaFolder::of($clip)->read(MediaFile::Proxy))->frames);
    }

    public function test_cataloguing_again_leaves_what_a_person_has_set(): void
    {
        $this->part('S001/a.wav', 500, 8000, 8000 * 36_000);
        $this->offload('S001', 'S');
        Clip::query()
            ->sole()
            ->update(['device_id' => $this->devices['B']->id, 'is_wild' => true]);
        $task = Task::query()->where('kind', 'catalogue')->sole();
        $task->update(['state' => 'running', 'ended_at' => null]);
        CatalogueCardJob::dispatchSync($task->id);
        $clip = Clip::query()->sole();
        self::assertSame([$this->devices['B']->id, true], [$clip->device_id, $clip->is_wild]);
    }
}
