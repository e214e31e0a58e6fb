<?php

declare(strict_types=1);

namespace Tests\App\Screening;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Screening\ExportJob;
use App\Domain\Screening\ExportReel;
use App\Domain\Screening\ReelFile;
use App\Models\Clip;
use App\Models\Role;
use App\Models\Task;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Facades\Queue;
use Tests\App\Support\NumberedMedia;
use Tests\App\TestCase;
use Tests\Browser\Support\TestCards;

/** A reel as a file: every frame of the reel, its sound sample for sample, and what is written over it only where it was asked. */
final class ExportTest extends TestCase
{
    use NumberedMedia;

    /** @return list<int> samples of the left ear */
    private static function samples(string $file, int $channels): array
    {
        $raw = self::ffmpeg(['-i', $file, '-f', 's16le', '-ac', (string) $channels, '-']);
        $all = array_values(unpack('s*', $raw) ?: []);

        return $channels === 1 ? $all : array_values(array_filter($all, static fn(int $key): bool => $key % 2 === 0, ARRAY_FILTER_USE_KEY));
    }

    /** @param  array<string, mixed>  $wanted */
    private function export(string $reel, array $wanted = []): Task
    {
        $usual = ['slate' => false, 'timecode' => false, 'originals' => false, 'height' => 540];
        $ulid = $this->postJson($this->at("sequences/$reel/exports"), $wanted + $usual)
            ->assertStatus(201)
            ->json('ulid');

        return Task::query()->where('ulid', $ulid)->sole();
    }

    private function reel(): string
    {
        return $this->as(Role::Editor)
            ->postJson($this->onDay('reels'), ['circled_only' => false, 'begin' => 'slate'])
            ->assertStatus(201)
            ->json('ulid');
    }

    public function test_every_frame_of_the_reel_is_one_of_the_file_and_its_sound_is_the_reels_to_the_sample(): void
    {
        [$first, $second] = [$this->shot('one', 'A', 10, 1), $this->shot('two', 'A', 60, 2)];
        $first->update(['head_frames' => 37]);
        $second->update(['head_frames' => 5]);
        $reel = $this->reel();
        $task = $this->export($reel);
        self::assertSame('done', $task->state, json_encode($task->result));
        $folder = ExportReel::folder($task);
        self::assertSame([...range(37, 99), ...range(5, 99)], self::numbers("$folder/reel.mp4"));
        $heard = self::samples("$folder/reel.wav", 2);
        self::assertCount((63 + 95) * 1920, $heard);
        $at = 0;
        foreach ([[$first, 37, 63], [$second, 5, 95]] as [$clip, $from, $frames]) {
            $whole = self::samples(MediaFolder::of($clip)->read(MediaFile::Channel, 1), 1);
            // Behind the short fades of the cut the samples are those of the recording.
            $own = array_slice($whole, $from * 1920 + 500, 4000);
            $theirs = array_slice($heard, $at + 500, 4000);
            self::assertLessThanOrEqual(2, max(array_map(static fn(int $x, int $y): int => abs($x - $y), $own, $theirs)));
            $at += $frames * 1920;
        }
        self::assertSame(['reel.mp4', 'reel.wav'], array_map(basename(...), glob("$folder/*") ?: []), 'nothing else is left there');
        $this->get($this->at("sequences/$reel/exports/$task->ulid/picture"))
            ->assertOk()
            ->assertHeader('X-Accel-Redirect', "/exported/$task->ulid/reel.mp4");
    }

    public function test_what_is_written_over_the_picture_is_there_only_where_it_was_asked_for(): void
    {
        $this->shot('one', 'A', 10, 1)->update(['start_ticks' => 36_000 * Ticks::PER_SECOND]);
        $reel = $this->reel();
        $corner = static fn(Task $task, string $crop): string => md5(
            self::ffmpeg([
                '-i',
                ExportReel::folder($task) . '/reel.mp4',
                '-frames:v',
                '1',
                '-vf',
                "$crop,format=gray",
                '-f',
                'rawvideo',
                '-',
            ]),
        );
        [$plain, $slate, $all] = [
            $this->export($reel),
            $this->export($reel, ['slate' => true]),
            $this->export($reel, ['slate' => true, 'timecode' => true, 'name' => "Dora's; [x]=%{n} \\ 100 %"]),
        ];
        foreach (
            [
                'the slate' => ['crop=150:50:0:0', true, true],
                'the timecode' => ['crop=260:50:700:0', false, true],
                'the name' => ['crop=600:50:180:490', false, true],
            ]
            as $what => [$crop, $inSlate, $inAll]
        ) {
            self::assertSame($inSlate, $corner($plain, $crop) !== $corner($slate, $crop), $what);
            self::assertSame($inAll, $corner($plain, $crop) !== $corner($all, $crop), $what);
        }
    }

    public function test_a_run_that_was_killed_goes_on_with_the_takes_that_it_has(): void
    {
        $this->shot('one', 'A', 10, 1);
        $this->shot('two', 'A', 60, 2);
        $reel = $this->reel();
        Queue::fake();
        $task = $this->export($reel);
        $folder = ExportReel::folder($task);
        mkdir($folder, 0777, true);
        // What the first try had written of the first take, and what it was writing when it died.
        self::ffmpeg([
            ...['-f', 'lavfi', '-i', 'color=gray:size=960x540:rate=25', '-frames:v', '100', '-c:v', 'libx264', '-preset', 'veryfast'],
            ...['-crf', '20', '-pix_fmt', 'yuv420p', '-g', '48', '-video_track_timescale', '2500', "$folder/000000.mp4"],
        ]);
        file_put_contents("$folder/000001.mp4.part", 'half');
        (new ExportJob($task->id))->handle(app(ReelFile::class));
        self::assertSame('done', $task->refresh()->state, json_encode($task->result));
        $numbers = self::numbers("$folder/reel.mp4");
        self::assertNotSame(range(0, 99), array_slice($numbers, 0, 100), 'the first is not written again');
        self::assertSame(range(0, 99), array_slice($numbers, 100));
    }

    public function test_it_is_stopped_by_who_may_make_it(): void
    {
        $this->shot('one', 'A', 10, 1);
        $reel = $this->reel();
        Queue::fake();
        $task = $this->export($reel);
        $this->as(Role::Reviewer)->deleteJson($this->at("sequences/$reel/exports/$task->ulid"))->assertStatus(403);
        $this->as(Role::Editor)->deleteJson($this->at("sequences/$reel/exports/$task->ulid"))->assertOk();
        self::assertSame('cancelled', $this->getJson($this->at("sequences/$reel/exports"))->json('exports.0.state'));
    }

    public function test_all_angles_of_a_take_stand_beside_each_other_in_step(): void
    {
        $this->shot('wide', 'A', 10, 1);
        $take = $this->take('4', 1);
        [$wide, $close] = [$this->shot('four wide', 'A', 60, 7), $this->shot('four close', 'B', 62, 8)];
        foreach ([[$wide, 60], [$close, 61]] as [$clip, $at]) {
            $clip->parts()->update(['take_id' => $take->id]);
            $this->place($clip, $at);
            // Neither has sound: the reel is silent, and as long as its pictures.
            $clip->update(['channels' => []]);
        }
        $reel = $this->as(Role::Editor)
            ->postJson($this->onDay('reels'), [
                'circled_only' => false,
                'from' => 'scenes',
                'what' => ['4'],
                'begin' => 'whole',
                'angles' => 'together',
            ])
            ->assertStatus(201)
            ->json('ulid');
        $folder = ExportReel::folder($this->export($reel));
        $file = "$folder/reel.mp4";
        self::assertSame(array_fill(0, 100 * 1920, 0), self::samples("$folder/reel.wav", 2));
        $half = function (int $x) use ($file): array {
            $target = "$this->folder/half-$x.mkv";
            self::ffmpeg(['-i', $file, '-vf', "crop=480:270:$x:135", '-c:v', 'ffv1', $target]);

            return self::numbers($target);
        };
        self::assertSame(range(0, 99), $half(0));
        // The other camera began a second later; before it there is nothing of it.
        self::assertSame(range(0, 74), array_slice($half(480), 25));
    }

    public function test_from_the_recordings_it_shows_what_the_card_brought(): void
    {
        TestCards::numbered($this->folder . '/bench/A077', '5-01', '25', '11:00:00:00', self::FRAMES);
        $this->as()
            ->postJson($this->onDay('volumes/A077/offload'), ['roll' => 'A077', 'device' => 'A'])
            ->assertStatus(202);
        $clip = Clip::query()->where('name', '5-01')->sole();
        $this->postJson($this->onDay('log/slate'), ['clips' => [$clip->ulid], 'slate' => '5/1'])->assertOk();
        // A proxy of something else, so that it shows where the picture comes from.
        self::ffmpeg([
            ...['-f', 'lavfi', '-i', 'color=gray:size=480x270:rate=25', '-frames:v', '100', '-pix_fmt', 'yuv420p'],
            MediaFolder::of($clip)->read(MediaFile::Proxy),
        ]);
        $reel = $this->reel();
        $numbers = fn(bool $originals): array => self::numbers(
            ExportReel::folder($this->export($reel, ['originals' => $originals])) . '/reel.mp4',
        );
        self::assertSame(range(0, 99), $numbers(true));
        self::assertNotSame(range(0, 99), $numbers(false));
    }
}
