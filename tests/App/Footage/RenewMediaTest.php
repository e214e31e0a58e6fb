<?php

declare(strict_types=1);

namespace Tests\App\Footage;

use App\Domain\Footage\ClipMedia;
use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Footage\RenewMedia;
use App\Domain\Footage\Stores;
use App\Models\Clip;
use Cartella\Core\Media\Probe;
use Cartella\Core\Process;
use Cartella\Core\Tests\Support\WavBuilder;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\MakesMedia;
use Tests\App\TestCase;

/** What players show and hear, made from real recordings, and made anew when the recipe is another one. */
final class RenewMediaTest extends TestCase
{
    use MakesMedia;

    private function offloaded(string $volume, string $device): Clip
    {
        $this->as()
            ->postJson($this->onDay("volumes/$volume/offload"), ['roll' => $volume, 'device' => $device])
            ->assertStatus(202);

        return Clip::query()->whereHas('card', static fn($card) => $card->where('roll', $volume))->sole();
    }

    /** The level of a channel's file in dB. */
    private static function level(string $file): float
    {
        $run = Process::run(['ffmpeg', '-v', 'info', '-nostdin', '-i', $file, '-af', 'volumedetect', '-f', 'null', '-']);
        self::assertSame(1, preg_match('/max_volume: (-?[\d.]+) dB/', $run['error'], $part), $run['error']);

        return (float) $part[1];
    }

    public function test_the_proxy_carries_the_clips_timecode_and_its_reel(): void
    {
        $this->camera('A001/A001C001.mov', $this->stage(3, 4), '09:12:10:05');
        $clip = $this->offloaded('A001', 'A');
        $proxy = Probe::file(MediaFolder::of($clip)->read(MediaFile::Proxy));
        self::assertSame([$clip->start_ticks, 75], [$proxy->startTicks, $proxy->frames]);
        $tags = Process::run([
            'ffprobe',
            '-v',
            'error',
            '-show_entries',
            'format_tags=reel_name',
            '-of',
            'csv=p=0',
            MediaFolder::of($clip)->read(MediaFile::Proxy),
        ]);
        self::assertSame('A001', trim($tags['output']));
    }

    public function test_every_channel_of_every_stream_can_be_heard_by_itself(): void
    {
        $this->plain('A001/A001C001.mov', '');
        $command = ['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc=size=128x72:rate=25'];
        // One microphone, silence, and a pair of which only the right one hears something.
        foreach (['sine=440', 'anullsrc=cl=mono', 'aevalsrc=0|0.5*sin(880*2*PI*t)'] as $source) {
            array_push($command, '-f', 'lavfi', '-i', $source);
        }
        $run = Process::run([
            ...$command,
            ...['-t', '2', '-map', '0:v', '-map', '1:a', '-map', '2:a', '-map', '3:a', '-c:v', 'libx264', '-pix_fmt', 'yuv420p'],
            ...['-c:a', 'pcm_s16le', '-ar', '48000', "$this->folder/bench/A001/A001C001.mov"],
        ]);
        self::assertSame(0, $run['status'], $run['error']);
        $clip = $this->offloaded('A001', 'A');
        self::assertCount(4, $clip->channels);
        $levels = array_map(static fn(int $channel): float => self::level(MediaFolder::of($clip)->read(MediaFile::Channel, $channel)), [
            1,
            2,
            3,
            4,
        ]);
        self::assertGreaterThan(-25, $levels[0]);
        self::assertLessThan(-80, $levels[1]);
        self::assertLessThan(-80, $levels[2]);
        self::assertEqualsWithDelta(-6, $levels[3], 0.5);
        $this->get($this->at("clips/$clip->ulid/media/channel-4"))->assertOk();
        $this->get($this->at("clips/$clip->ulid/media/channel-5"))->assertNotFound();
        $peaks = unpack('a4mark/vchannels', (string) file_get_contents(MediaFolder::of($clip)->read(MediaFile::Peaks), false, null, 0, 6));
        self::assertSame(4, $peaks['channels'] ?? null);
    }

    public function test_the_guide_of_several_microphones_is_their_mean(): void
    {
        $this->plain('S001/T01.wav', '');
        $one = $this->stage(3, 31);
        $both = '';
        foreach ($one as $sample) {
            $both .= pack('ss', $sample, intdiv($sample, 2));
        }
        WavBuilder::pcm(0, 2, 16, 8000, $both)->write("$this->folder/bench/S001/T01.wav");
        $clip = $this->offloaded('S001', 'S');
        self::assertSame([1, 2], $clip->facts['guide_channels']);
        $guide = unpack('s*', (string) file_get_contents(MediaFolder::of($clip)->read(MediaFile::Guide))) ?: [];
        self::assertEqualsWithDelta(0.75 * max($one), max($guide), 40);
        self::assertSame([], glob(MediaFolder::of($clip)->folder() . '/*.part'), 'nothing is left lying about');
    }

    public function test_media_of_an_older_recipe_is_made_anew_newest_day_first_and_the_old_names_go(): void
    {
        foreach (['S001', 'S002'] as $volume) {
            $this->plain("$volume/T01.wav", '');
            WavBuilder::pcm(0, 1, 16, 8000, str_repeat(pack('v', 900), 8000))->write("$this->folder/bench/$volume/T01.wav");
        }
        $old = $this->offloaded('S001', 'S');
        $new = $this->offloaded('S002', 'S');
        $later = $this->production->days()->create(['number' => 2, 'date' => '2026-10-09']);
        $new->update(['shoot_day_id' => $later->id]);
        $made = [];
        foreach ([$old, $new] as $clip) {
            unlink(MediaFolder::of($clip)->read(MediaFile::Channel, 1));
            foreach (['proxy.mp4', 'synced.mp4', 'peaks', 'channel-9.1.mp4'] as $name) {
                file_put_contents(MediaFolder::of($clip)->folder() . "/$name", 'old');
            }
            $clip->update(['media_recipe' => 0]);
        }
        Clip::updated(static function (Clip $clip) use (&$made): void {
            $made[] = $clip->id;
        });
        self::assertTrue(RenewMedia::isNeeded());
        RenewMedia::dispatchSync();
        self::assertSame([$new->id, $old->id], $made);
        self::assertFalse(RenewMedia::isNeeded());
        foreach ([$old, $new] as $clip) {
            self::assertFileExists(MediaFolder::of($clip)->read(MediaFile::Channel, 1));
            self::assertSame([], glob(MediaFolder::of($clip)->folder() . '/{proxy.mp4,synced.mp4,peaks,channel-9.1.mp4}', GLOB_BRACE));
        }
    }

    public function test_a_clip_whose_copies_are_away_waits_and_one_that_cannot_be_decoded_says_so(): void
    {
        $away = $this->clip('A001C001', 'A', 10, more: ['proxied_at' => now()]);
        $this->plain('S001/T01.wav', '');
        WavBuilder::pcm(0, 1, 16, 8000, str_repeat(pack('v', 900), 8000))->write("$this->folder/bench/S001/T01.wav");
        $broken = $this->offloaded('S001', 'S');
        $broken->update(['media_recipe' => 0]);
        foreach (glob("$this->folder/{one,two}/*/Day 01/S/S001/T01.wav", GLOB_BRACE) ?: [] as $copy) {
            chmod($copy, 0o644);
            file_put_contents($copy, 'no sound');
        }
        RenewMedia::dispatchSync();
        self::assertSame([0, true], [$away->refresh()->media_recipe, $away->proxied_at !== null]);
        self::assertNull($broken->refresh()->proxied_at);
        self::assertCount(1, $broken->problems);
        Cache::flush();
        self::assertTrue(RenewMedia::isNeeded(), 'the one that is away is tried again later');
    }

    public function test_a_clip_whose_media_killed_three_workers_is_given_up_and_says_so(): void
    {
        $this->plain('S001/T01.wav', '');
        WavBuilder::pcm(0, 1, 16, 8000, str_repeat(pack('v', 900), 8000))->write("$this->folder/bench/S001/T01.wav");
        $clip = $this->offloaded('S001', 'S');
        $clip->update(['media_recipe' => 0]);
        $killing = true;
        DB::listen(static function (QueryExecuted $query) use (&$killing): void {
            if ($killing && str_starts_with($query->sql, 'update `clips`')) {
                throw new \ErrorException('killed as it was nearly done');
            }
        });
        $renew = static fn() => app(RenewMedia::class)->handle(app(ClipMedia::class), app(Stores::class));
        foreach (range(1, 3) as $_) {
            try {
                DB::transaction($renew);
                self::fail('it was not killed');
            } catch (\ErrorException) {
                self::assertTrue(RenewMedia::isNeeded(), 'it is tried again');
            }
            Cache::forget("renew.$clip->id");
        }
        $killing = false;
        $renew();
        self::assertFalse(RenewMedia::isNeeded());
        self::assertStringContainsString('3 tries', $clip->refresh()->problems[0]);
    }
}
