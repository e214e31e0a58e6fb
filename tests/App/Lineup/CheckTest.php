<?php

declare(strict_types=1);

namespace Tests\App\Lineup;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Lineup\PointsJob;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Role;
use Cartella\Core\Process;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Sound\Ltc;
use Cartella\Core\Tests\Support\LtcWriter;
use Cartella\Core\Tests\Support\WavBuilder;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Facades\Queue;
use Tests\App\Support\MakesMedia;
use Tests\App\TestCase;

/** A place judged by eye and ear, from real recordings that came in through the real jobs. */
final class CheckTest extends TestCase
{
    use MakesMedia;

    private const NINE = 9 * 3600;

    protected function setUp(): void
    {
        parent::setUp();
        $stage = $this->stage(14, 71);
        foreach (range(0, 300) as $i) {
            $stage[24_000 + $i] = (int) (30_000 * exp(-$i / 60) * ($i % 2 === 0 ? 1 : -1));
        }
        // Quiet around the clap, as when a slate is held up.
        for ($i = 16_000; $i < 30_000; $i++) {
            $stage[$i] = $i >= 24_000 && $i <= 24_300 ? $stage[$i] : intdiv($stage[$i], 80);
        }
        $this->recorder('S001/3-T01.wav', $stage, self::NINE, '<SCENE>3</SCENE><TAKE>1</TAKE>');
        $this->camera('A001/A001C001.mov', array_slice($stage, 8_000, 96_000), '09:00:01:00');
        $this->camera('B001/B001C001.mov', array_slice($stage, 12_000, 88_000), '09:00:01:12');
        $this->as();
        foreach (['S001' => 'S', 'A001' => 'A', 'B001' => 'B'] as $volume => $device) {
            $this->postJson($this->onDay("volumes/$volume/offload"), ['roll' => $volume, 'device' => $device])->assertStatus(202);
        }
        $this->postJson($this->onDay('lineup'))->assertStatus(202);
    }

    private function clipNamed(string $name): Clip
    {
        return Clip::query()->with('placement')->where('name', $name)->sole();
    }

    /** @return array{list<int>, list<int>} left and right */
    private static function ears(string $wav): array
    {
        self::assertSame('RIFF', substr($wav, 0, 4));
        $both = array_values(unpack('s*', substr($wav, (int) strpos($wav, 'data') + 8)) ?: []);
        $left = $right = [];
        foreach ($both as $at => $value) {
            $at % 2 === 0 ? ($left[] = $value) : ($right[] = $value);
        }

        return [$left, $right];
    }

    public function test_a_place_is_shown_against_what_it_was_found_with_beside_another_picture_and_at_the_clap(): void
    {
        $clip = $this->clipNamed('A001C001');
        $check = $this->getJson($this->at("clips/$clip->ulid/check"))->assertOk();
        $check->assertJsonPath('against.name', '3-T01')->assertJsonPath('beside.name', 'B001C001')->assertJsonPath('own.name', 'A001C001');
        self::assertSame('clap', $check->json('moments.0.what'));
        self::assertEqualsWithDelta(
            2.0,
            $check->json('moments.0.ticks') / Ticks::PER_SECOND,
            0.01,
            'three seconds into the recording, two into the picture',
        );
        self::assertContains('onset', array_column($check->json('moments'), 'what'));
        $points = $this->getJson($this->at("clips/$clip->ulid/points"))->assertOk()->json();
        self::assertEqualsWithDelta(2.0, $points['claps'][0]['ticks'] / Ticks::PER_SECOND, 0.01);
        file_put_contents(MediaFolder::of($clip)->folder() . '/points.json', json_encode(['claps' => [], 'onsets' => [], 'flashes' => []]));
        self::assertSame([], $this->getJson($this->at("clips/$clip->ulid/points"))->json('claps'), 'they are looked for once');
        unlink(MediaFolder::of($clip)->folder() . '/points.json');
        Queue::fake();
        $this->getJson($this->at("clips/$clip->ulid/points"))->assertStatus(202)->assertJsonPath('pending', true);
        $this->getJson($this->at("clips/$clip->ulid/points"))->assertStatus(202);
        Queue::assertPushed(PointsJob::class, 1);
    }

    public function test_the_same_moment_lies_at_the_same_sample_on_both_ears_and_nothing_before_a_clip_begins(): void
    {
        $clip = $this->clipNamed('A001C001');
        $sound = $this->clipNamed('3-T01');
        $apart = $clip->placement->start_ticks - $sound->placement->start_ticks;
        $pair = fn(int $from, float $seconds) => $this->get(
            $this->at("clips/$clip->ulid/pair?") .
                http_build_query(['against' => $sound->ulid, 'from_ticks' => $from, 'apart_ticks' => $apart, 'seconds' => $seconds]),
        )->assertOk();
        [$left, $right] = self::ears($pair(Ticks::PER_SECOND, 2.0)->assertHeader('Content-Type', 'audio/wav')->getContent());
        self::assertCount(96_000, $left);
        $loudest = static fn(array $values): int => (int) array_search(
            max(array_map(abs(...), $values)),
            array_map(abs(...), $values),
            true,
        );
        self::assertEqualsWithDelta(48_000, $loudest($left), 100, 'the clap, a second in');
        self::assertEqualsWithDelta($loudest($left), $loudest($right), 12, 'a quarter of a millisecond');
        [$left, $right] = self::ears($pair(-Ticks::PER_SECOND, 2.0)->getContent());
        self::assertSame(0, max(array_map(abs(...), array_slice($left, 0, 47_000))), 'the camera did not run yet');
        self::assertGreaterThan(500, max(array_map(abs(...), array_slice($right, 0, 47_000))), 'the recorder did');
        $this->getJson($this->at("clips/$clip->ulid/pair?against=$sound->ulid&from_ticks=0&apart_ticks=0&seconds=900"))->assertStatus(422);
    }

    public function test_a_head_begins_a_second_before_the_clap_and_a_clip_without_a_slate_says_so(): void
    {
        $clip = $this->clipNamed('A001C001');
        $this->putJson($this->at("clips/$clip->ulid/head"), ['slate' => true, 'was' => null])
            ->assertOk()
            ->assertJsonPath('frames', 25);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Begin A001C001 at its frame 25');
        $mute = $this->clip('C001', 'B', 40_000, 10);
        $this->putJson($this->at("clips/$mute->ulid/head"), ['slate' => true, 'was' => null])
            ->assertStatus(422)
            ->assertJsonPath('code', 'head.slate');
    }

    public function test_all_pictures_begin_at_their_slates_in_one_step_and_whole_again(): void
    {
        $heads = static fn(): array => Clip::query()->where('kind', 'picture')->orderBy('name')->pluck('head_frames', 'name')->all();
        $this->clip('C001', 'B', 40_000, 10);
        $this->putJson($this->onDay('heads'), ['whole' => false])
            ->assertOk()
            ->assertExactJson(['changed' => 2, 'none' => 1]);
        self::assertSame(['A001C001' => 25, 'B001C001' => 12, 'C001' => null], $heads());
        $this->putJson($this->onDay('heads'), ['whole' => true, 'clips' => [$this->clipNamed('A001C001')->ulid]])->assertExactJson([
            'changed' => 1,
            'none' => 0,
        ]);
        self::assertSame(['A001C001' => null, 'B001C001' => 12, 'C001' => null], $heads());
        $this->postJson($this->at('undo'));
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Begin 2 clips at their slates');
        self::assertSame(['A001C001' => null, 'B001C001' => null, 'C001' => null], $heads());
    }

    public function test_claps_of_one_take_place_clips_whose_sound_is_no_help(): void
    {
        // A camera across the room whose own sound is another, but for the clap.
        $other = $this->stage(12, 505);
        foreach (range(0, 11) as $second) {
            foreach (range(0, 7_999) as $i) {
                $other[8_000 * $second + $i] = intdiv($other[8_000 * $second + $i], $second < 4 ? 80 : 1);
            }
        }
        foreach (range(0, 300) as $i) {
            $other[20_000 + $i] = (int) (30_000 * exp(-$i / 60) * ($i % 2 === 0 ? 1 : -1));
        }
        Device::query()->create(['production_id' => $this->production->id, 'letter' => 'C', 'kind' => 'camera', 'lane' => 9]);
        $this->camera('C001/3_T01.mov', $other, '17:00:00:00');
        $this->postJson($this->onDay('volumes/C001/offload'), ['roll' => 'C001', 'device' => 'C'])->assertStatus(202);
        $this->postJson($this->onDay('log/read'))->assertOk();
        $this->postJson($this->onDay('lineup'), ['ways' => ['clap'], 'cut' => false])->assertStatus(202);
        $place = $this->clipNamed('3_T01')->placement;
        self::assertSame(['mark', '3/1 clap', false], [$place->way, $place->evidence['point'], $place->is_sure]);
        // The recorder's clap is three seconds in, the camera's two and a half.
        self::assertEqualsWithDelta((self::NINE + 0.5) * Ticks::PER_SECOND, $place->start_ticks, Ticks::PER_SECOND / 25);
    }

    public function test_what_is_heard_under_a_picture_moves_with_it_at_once(): void
    {
        $clip = $this->clipNamed('B001C001');
        $under = fn(): array => $this->getJson($this->at("clips/$clip->ulid/playlist"))->assertOk()->json('sounds.0');
        $before = $under();
        $clip->placement->update(['start_ticks' => $clip->placement->start_ticks + Ticks::PER_SECOND]);
        $after = $under();
        self::assertSame($before['clip'], $after['clip']);
        self::assertSame($before['in_ticks'] + Ticks::PER_SECOND, $after['in_ticks']);
    }

    public function test_timecode_on_a_sound_track_becomes_the_clips_own_also_when_the_card_is_catalogued_again(): void
    {
        $path = $this->folder . '/bench/A002';
        mkdir($path);
        $timecode = LtcWriter::write(FrameRate::parse('25'), '14:30:00:00', '14:30:03:24');
        $samples = '';
        foreach (unpack('s*', $timecode) ?: [] as $at => $value) {
            $samples .= pack('ss', (int) (4000 * sin($at / 9) * (($at >> 12) % 3)), $value);
        }
        WavBuilder::pcm(0, 2, 16, 48_000, $samples)->write($path . '/A002C001.wav');
        $this->postJson($this->onDay('volumes/A002/offload'), ['roll' => 'A002', 'device' => 'A'])->assertStatus(202);
        $clip = $this->clipNamed('A002C001');
        $half = (14 * 3600 + 1800) * Ticks::PER_SECOND;
        self::assertEqualsWithDelta($half, $clip->start_ticks, Ticks::PER_SECOND / 2000);
        self::assertSame(
            ['ltc', 2, '14:30:00:00'],
            [$clip->facts['start_source'], $clip->facts['ltc']['channel'], $clip->facts['ltc']['first']],
        );
        self::assertNull($clip->facts['ltc']['file_ticks'], 'what the file said stays beside it');
        app(\App\Domain\Tasks\StartTask::class)($this->production, null, 'catalogue', 'Catalogue again', [
            'card' => $clip->card_id,
            'day' => $this->day->id,
        ]);
        self::assertEqualsWithDelta($half, $clip->refresh()->start_ticks, Ticks::PER_SECOND / 2000);
        $this->as(Role::Reviewer)->getJson($this->at("clips/$clip->ulid"))->assertJsonPath('start_timecode', '14:30:00:00');
    }

    public function test_a_camera_with_timecode_on_a_stream_of_its_own_is_lined_up_by_its_microphone_and_the_timecode_is_not_heard(): void
    {
        $stage = $this->stage(8, 21);
        $this->recorder('S002/3-T01.wav', $stage, 10 * 3600, '<SCENE>3</SCENE><TAKE>1</TAKE>');
        $faint = array_map(static fn(int $sample): int => intdiv($sample, 12), array_slice($stage, 16_000, 4 * 8000));
        $this->plain('A003/A003C001.mov', '');
        $microphone = WavBuilder::pcm(0, 1, 16, 8000, pack('s*', ...$faint))->write("$this->folder/microphone.wav");
        file_put_contents("$this->folder/ltc.s16", LtcWriter::write(FrameRate::parse('25'), '10:00:02:00', '10:00:05:24', db: -3));
        $run = Process::run([
            ...['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc=size=128x72:rate=25', '-f', 's16le', '-ar', '48000'],
            ...['-ac', '1', '-i', "$this->folder/ltc.s16", '-i', $microphone, '-t', '4', '-map', '0', '-map', '1', '-map', '2'],
            ...['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'pcm_s16le', '-ar', '48000', "$this->folder/bench/A003/A003C001.mov"],
        ]);
        self::assertSame(0, $run['status'], $run['error']);
        foreach (['S002' => 'S', 'A003' => 'A'] as $volume => $device) {
            $this->postJson($this->onDay("volumes/$volume/offload"), ['roll' => $volume, 'device' => $device])->assertStatus(202);
        }
        $clip = $this->clipNamed('A003C001');
        self::assertSame(['timecode', 'sound'], $clip->facts['channel_kinds']);
        $heard = $this->getJson($this->at("clips/$clip->ulid/playlist"))->assertOk()->json('own_sounds.0.channels');
        self::assertSame([2], array_column($heard, 'index'), 'only the microphone is heard');
        $proxy = MediaFolder::of($clip)->read(MediaFile::Proxy);
        self::assertNull(Ltc::ofFile($proxy, 1), 'also on the proxy');
        self::assertTrue(GuideTrack::decode($proxy, [2])->hasUsableSound());
        $this->postJson($this->onDay('lineup'), ['ways' => ['sound', 'timecode'], 'cut' => false])->assertStatus(202);
        $place = $clip->refresh()->placement;
        self::assertSame(['sound', true], [$place?->way, $place?->is_sure]);
        self::assertEqualsWithDelta((10 * 3600 + 2) * Ticks::PER_SECOND, $place->start_ticks, Ticks::PER_SECOND / 500);
    }
}
