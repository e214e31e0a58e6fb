<?php

declare(strict_types=1);

namespace Tests\App\Cards;

use App\Domain\Cards\CopyCardJob;
use App\Domain\Cards\Readers;
use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Tasks\Room;
use App\Domain\Tasks\TaskLost;
use App\Models\Card;
use App\Models\CardFile;
use App\Models\Clip;
use App\Models\Task;
use App\Support\Problem;
use Cartella\Core\Custody\Verify;
use Cartella\Core\Process;
use Illuminate\Support\Facades\File;
use Illuminate\Support\Facades\Queue;
use Tests\App\Support\MakesMedia;
use Tests\App\Support\NoLookAtRoom;
use Tests\App\TestCase;

final class OffloadTest extends TestCase
{
    use MakesMedia;

    private function offload(string $volume, ?string $device = null): \Illuminate\Testing\TestResponse
    {
        return $this->as()->postJson($this->onDay("volumes/$volume/offload"), ['roll' => $volume, 'device' => $device]);
    }

    public function test_the_bench_suggests_the_device_and_the_roll_and_says_why(): void
    {
        $this->plain('A001/A001_REPORT.TXT', "ROLL A001\r\nDEVICE  camera A\r\n");
        $this->plain('B007/clip.mov', 'x');
        $this->plain('SHUTTLE/Music/cue.wav', 'x');
        $volumes = array_column($this->as()->getJson($this->onDay('cards'))->assertOk()->json('volumes'), null, 'name');
        self::assertSame(['A', 'from the report on the card'], [$volumes['A001']['device'], $volumes['A001']['why']]);
        self::assertSame(['B', 'from its name'], [$volumes['B007']['device'], $volumes['B007']['why']]);
        self::assertSame([null, 'folder'], [$volumes['SHUTTLE']['device'], $volumes['SHUTTLE']['kind']]);
    }

    public function test_a_card_arrives_twice_with_proof_and_is_catalogued_with_all_it_shows(): void
    {
        $stage = $this->stage(6, 1);
        $this->camera('A001/ROLL/A001C001.mov', $stage, '09:12:10:05');
        $this->plain('A001/._junk.mov', 'junk');
        $this->plain('A001/report.txt', 'text');
        $this->offload('A001', 'A')->assertStatus(202);
        $card = Card::query()->sole();
        self::assertTrue($card->isSafe());
        foreach (['one', 'two'] as $store) {
            self::assertTrue(Verify::folder("$this->folder/$store/{$this->production->name}/Day 01/A/A001")['ok']);
        }
        $clip = Clip::query()->sole();
        self::assertSame(['A001C001', 'picture', 150, 'A'], [$clip->name, $clip->kind, $clip->frames, $clip->device->letter]);
        self::assertSame((9 * 3600 + 12 * 60 + 10) * 25 + 5, intdiv($clip->start_ticks, 28_224_000));
        $answer = $this->get($this->at("clips/$clip->ulid/media/proxy"))->assertOk();
        self::assertStringEndsWith('/proxy.2.mp4', (string) $answer->headers->get('X-Accel-Redirect'));
        foreach (
            ['proxy.2.mp4', 'small.2.mp4', 'channel-1.2.mp4', 'thumb-1.jpg', 'thumb-2.jpg', 'thumb-3.jpg', 'peaks.2', 'guide']
            as $name
        ) {
            self::assertFileExists(MediaFolder::of($clip)->folder() . '/' . $name);
        }
        self::assertSame(2 * 6 * 8000, filesize(MediaFolder::of($clip)->folder() . '/guide'));
    }

    public function test_the_proxy_has_the_frames_of_the_original_one_for_one(): void
    {
        $this->camera('A001/A001C001.mov', $this->stage(4, 2), '00:00:00:00');
        $this->offload('A001', 'A');
        $proxy = MediaFolder::of(Clip::query()->sole())->read(MediaFile::Proxy);
        $run = Process::run([
            'ffprobe',
            '-v',
            'error',
            '-count_packets',
            '-select_streams',
            'v',
            '-show_entries',
            'stream=nb_read_packets,r_frame_rate,start_time',
            '-of',
            'csv=p=0',
            $proxy,
        ]);
        self::assertSame('25/1,0.000000,100', $run['output'] === '' ? $run['error'] : trim($run['output']));
    }

    public function test_a_link_on_the_card_keeps_it_from_being_safe_and_the_rest_goes_on(): void
    {
        $this->plain('A001/ok.txt', 'content');
        symlink('/etc/hostname', $this->folder . '/bench/A001/link.mov');
        $this->offload('A001', 'A');
        $card = Card::query()->sole();
        self::assertSame(['fault', false, 1], [$card->state, $card->isSafe(), $card->verified_files]);
        self::assertSame('link.mov', $card->faults[0]['path']);
        self::assertSame(['A001 cannot be released'], array_column($this->getJson($this->onDay('sheet'))->json('points'), 'title'));
        $this->postJson($this->at("cards/$card->ulid/release"))->assertStatus(422)->assertJsonPath('code', 'card.unsafe');
        unlink($this->folder . '/bench/A001/link.mov');
        $this->offload('A001', 'A')->assertStatus(202);
        self::assertTrue($card->refresh()->isSafe());
    }

    public function test_a_full_disk_stops_only_itself_and_says_so(): void
    {
        $small = $this->folder . '/small';
        mkdir($small);
        if (Process::run(['mount', '-t', 'tmpfs', '-o', 'size=64k', 'tmpfs', $small])['status'] !== 0) {
            self::markTestSkipped('A small disk can only be made by root.');
        }
        try {
            $this->storeAt('two', $small);
            $this->app->instance(Room::class, new NoLookAtRoom());
            $this->plain('A001/big.bin', random_bytes(300_000));
            $this->plain('A001/a-small.txt', 'fits');
            $this->offload('A001', 'A');
            $card = Card::query()->sole();
            self::assertSame(['fault', false], [$card->state, $card->isSafe()]);
            self::assertStringContainsString('full', implode(' ', array_column($card->faults, 'reason')));
            self::assertFileEquals(
                $this->folder . '/bench/A001/big.bin',
                "$this->folder/one/{$this->production->name}/Day 01/A/A001/big.bin",
            );
            self::assertStringContainsString('full', (string) Task::query()->where('kind', 'offload')->sole()->result['message']);
        } finally {
            Process::run(['umount', $small]);
        }
    }

    public function test_a_file_that_nothing_can_read_is_catalogued_and_open(): void
    {
        $this->plain('A001/broken.mov', str_repeat('no picture at all ', 1000));
        $this->offload('A001', 'A');
        self::assertSame('other', Clip::query()->sole()->kind);
        self::assertSame(['broken cannot be read'], array_column($this->getJson($this->onDay('sheet'))->json('points'), 'title'));
        self::assertTrue(Card::query()->sole()->isSafe(), 'it is copied all the same');
    }

    public function test_the_proxy_of_one_clip_is_made_again_by_itself(): void
    {
        $this->camera('A001/A001C001.mov', $this->stage(3, 4), '00:00:00:00');
        $this->offload('A001', 'A');
        $clip = Clip::query()->sole();
        $proxy = MediaFolder::of($clip)->read(MediaFile::Proxy);
        unlink($proxy);
        $clip->update(['problems' => ['The proxy could not be made.']]);
        $this->postJson($this->at("clips/$clip->ulid/media"))->assertStatus(202);
        self::assertFileExists($proxy);
        self::assertSame([], $clip->refresh()->problems ?? []);
    }

    public function test_a_worker_that_was_killed_is_followed_by_another_that_goes_on(): void
    {
        $this->plain('A001/one.txt', 'one');
        $this->plain('A001/two.txt', 'two');
        Queue::fake();
        $this->offload('A001', 'A')->assertStatus(202);
        Queue::assertPushedOn('copy', CopyCardJob::class);
        Task::query()->update(['state' => 'running', 'started_at' => now(), 'updated_at' => now()->subMinutes(5)]);
        Queue::swap(app('queue'));
        $this->app->forgetInstance('queue');
        Queue::clearResolvedInstances();
        $this->artisan('cartella:recover')->assertOk();
        self::assertTrue(Card::query()->sole()->isSafe());
        self::assertSame(2, CardFile::query()->whereNotNull('verified_at')->count());
    }

    public function test_a_worker_that_still_writes_the_folder_is_waited_for_and_is_no_fault_of_the_card(): void
    {
        $this->plain('A001/one.txt', 'one');
        Queue::fake();
        $this->offload('A001', 'A');
        Queue::swap(app('queue'));
        $this->app->forgetInstance('queue');
        Queue::clearResolvedInstances();
        $history = "$this->folder/one/{$this->production->name}/Day 01/A/A001/ascmhl";
        mkdir($history, 0777, true);
        $other = fopen($history . '/.offload.jsonl', 'c');
        flock($other, LOCK_EX);
        $task = Task::query()->where('kind', 'offload')->sole();
        try {
            CopyCardJob::dispatchSync($task->id);
            self::fail('It did not give way.');
        } catch (TaskLost) {
            self::assertSame(['running', 'copying'], [$task->refresh()->state, Card::query()->sole()->state]);
        }
        fclose($other);
        $this->artisan('cartella:recover')->assertOk();
        self::assertTrue(Card::query()->sole()->isSafe());
    }

    public function test_what_came_into_a_copy_later_and_went_again_is_no_loss_of_the_card(): void
    {
        $this->plain('A001/one.txt', 'one');
        $this->offload('A001', 'A');
        $card = Card::query()->sole();
        $stray = "$this->folder/one/{$this->production->name}/Day 01/A/A001/stray.txt";
        file_put_contents($stray, 'x');
        $this->postJson($this->at("cards/$card->ulid/verify"))->assertStatus(202);
        self::assertSame(['stray.txt'], $this->getJson($this->at("cards/$card->ulid"))->json('copies.0.differences.new'));
        unlink($stray);
        $this->postJson($this->at("cards/$card->ulid/verify"))->assertStatus(202);
        self::assertNull($this->getJson($this->at("cards/$card->ulid"))->json('copies.0.differences'));
        self::assertTrue($card->refresh()->load('copies')->isSafe());
    }

    public function test_an_offload_that_is_stopped_before_it_begins_can_be_started_again(): void
    {
        $this->plain('A001/one.txt', 'one');
        Queue::fake();
        $this->offload('A001', 'A');
        $this->offload('A001', 'A')->assertStatus(422)->assertJsonPath('code', 'card.busy');
        $task = Task::query()->sole();
        $this->postJson($this->at("tasks/$task->ulid/cancel"))->assertOk()->assertJsonPath('state', 'cancelled');
        self::assertSame('stopped', Card::query()->sole()->state);
        $this->offload('A001', 'A')->assertStatus(202);
    }

    public function test_a_job_that_runs_again_after_its_last_byte_leaves_what_one_run_leaves(): void
    {
        $this->camera('A001/A001C001.mov', $this->stage(3, 4), '00:00:00:00');
        $this->offload('A001', 'A');
        $found = static fn(): array => [
            Clip::query()->count(),
            CardFile::query()->whereNotNull('verified_at')->count(),
            CardFile::query()->count(),
            Task::query()->where('kind', 'offload')->count(),
        ];
        $before = $found();
        // The worker died between the last byte and the word that it was done.
        $task = Task::query()->where('kind', 'offload')->sole();
        $task->update(['state' => 'running', 'ended_at' => null, 'result' => null]);
        CardFile::query()->update(['verified_at' => null]);
        Card::query()->update(['state' => 'copying']);
        CopyCardJob::dispatchSync($task->id);
        self::assertSame('done', $task->refresh()->state, 'it ran');
        self::assertSame($before, $found());
        self::assertTrue(Card::query()->sole()->load('copies')->isSafe());
    }

    public function test_the_same_card_offered_twice_is_recognised(): void
    {
        $this->plain('A001/one.txt', 'one');
        $this->offload('A001', 'A');
        $this->offload('A001', 'A')->assertStatus(422)->assertJsonPath('code', 'card.seen');
        $this->plain('A001/three.txt', 'more');
        $this->offload('A001', 'A')->assertStatus(202);
        self::assertSame(2, Card::query()->sole()->verified_files);
    }

    public function test_a_card_is_released_by_a_person_once_and_the_record_says_who(): void
    {
        $this->plain('A001/one.txt', 'one');
        $this->offload('A001', 'A');
        $ulid = Card::query()->sole()->ulid;
        $this->postJson($this->at("cards/$ulid/release"), ['words' => 'one disk'])
            ->assertOk()
            ->assertJsonPath('released_by', 'Assistant Person');
        self::assertNotNull(Card::query()->sole()->released_at);
    }

    public function test_a_copy_is_read_again_at_any_time_and_a_damaged_one_keeps_the_card_from_release(): void
    {
        $this->plain('A001/one.txt', 'one');
        $this->plain('A001/two.txt', 'two');
        $this->offload('A001', 'A');
        $card = Card::query()->sole();
        $this->postJson($this->at("cards/$card->ulid/verify"))->assertStatus(202);
        $this->getJson($this->at("cards/$card->ulid"))
            ->assertJsonPath('copies.0.is_whole', true)
            ->assertJsonPath('copies.0.differences', null);
        $folder = "$this->folder/two/{$this->production->name}/Day 01/A/A001";
        file_put_contents("$folder/one.txt", 'damaged');
        rename("$folder/two.txt", "$folder/renamed.txt");
        file_put_contents("$folder/stranger.txt", 'x');
        $this->postJson($this->at("cards/$card->ulid/verify"))->assertStatus(202);
        $this->getJson($this->at("cards/$card->ulid"))
            ->assertJsonPath('is_safe', false)
            ->assertJsonPath('copies.1.differences.altered', ['one.txt'])
            ->assertJsonPath('copies.1.differences.renamed.0.to', 'renamed.txt')
            ->assertJsonPath('copies.1.differences.new', ['stranger.txt'])
            ->assertJsonPath('copies.0.is_whole', true);
        self::assertSame(
            ['A001 on Two is not as it was copied'],
            array_column($this->getJson($this->onDay('sheet'))->json('points'), 'title'),
        );
        $this->postJson($this->at("cards/$card->ulid/release"))->assertStatus(422)->assertJsonPath('code', 'card.unsafe');
        self::assertCount(3, glob("$folder/ascmhl/0*.mhl") ?: [], 'each look adds a generation');
    }

    public function test_a_volume_that_is_not_there_or_climbs_out_is_not_found(): void
    {
        $this->plain('A001/one.txt', 'one');
        File::ensureDirectoryExists("$this->folder/beside");
        file_put_contents("$this->folder/beside/one.txt", 'not on the bench');
        symlink("$this->folder/beside", "$this->folder/bench/LINK");
        file_put_contents("$this->folder/bench/FILE", 'no folder');
        $bench = app(Readers::class);
        self::assertSame("$this->folder/bench/A001", $bench->path($this->production, 'A001'));
        foreach (['Z999', '..', '.', '', '../beside', 'A001/..', 'LINK', 'FILE', "A001\0"] as $name) {
            try {
                $bench->path($this->production, $name);
                self::fail(json_encode($name) . ' is taken for a card.');
            } catch (Problem $problem) {
                self::assertSame(404, $problem->status);
            }
        }
        $this->as()
            ->postJson($this->onDay('volumes/LINK/offload'), ['roll' => 'L001', 'device' => 'A'])
            ->assertNotFound();
        $this->postJson($this->onDay('volumes/A001/offload'), ['roll' => 'A001', 'device' => 'A'])->assertStatus(202);
    }

    public function test_a_roll_name_that_would_leave_its_folder_is_refused(): void
    {
        $this->plain('A001/one.txt', 'one');
        foreach (['../../etc', '.hidden', "a\nb", 'a/b', ''] as $roll) {
            $this->as()
                ->postJson($this->onDay('volumes/A001/offload'), ['roll' => $roll, 'device' => 'A'])
                ->assertStatus(422);
        }
    }

    public function test_imports_come_in_by_the_folder_they_lie_in(): void
    {
        $this->recorder('SHUTTLE/Music/cue.wav', $this->stage(3, 9), 0, '');
        $this->offload('SHUTTLE');
        self::assertSame('music', Clip::query()->sole()->import_kind);
        self::assertContains('import:music', array_column($this->getJson($this->at('bins'))->json('groups.1.bins'), 'key'));
    }
}
