<?php

declare(strict_types=1);

namespace Tests\App\Handoff;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Handoff\PackJob;
use App\Models\Clip;
use App\Models\Handoff;
use App\Models\Production;
use App\Models\Role;
use App\Models\ShootDay;
use App\Models\Task;
use Cartella\Core\Custody\FolderWalk;
use Cartella\Core\Custody\Verify;
use Illuminate\Support\Str;
use Tests\App\TestCase;

/** What is packed, what is refused, and who may answer; the proxies are a few bytes, as the package does not look inside. */
final class HandoffTest extends TestCase
{
    private function proxied(string $name, string $device, float $at): Clip
    {
        $clip = $this->clip($name, $device, $at, more: ['proxied_at' => now()]);
        file_put_contents(MediaFolder::of($clip)->write(MediaFile::Proxy), 'pictures of ' . $name);

        return $clip;
    }

    /** @param  list<string>  $bins */
    private function handOff(array $bins = []): Handoff
    {
        $ulid = $this->as()
            ->postJson($this->at('handoffs'), ['days' => $bins === [] ? [$this->day->ulid] : [], 'bins' => $bins])
            ->assertStatus(202)
            ->json('ulid');

        return Handoff::query()->where('ulid', $ulid)->sole();
    }

    private function inbox(Handoff $handoff): string
    {
        return config('cartella.inbox') . '/' . $handoff->folder;
    }

    public function test_a_choice_without_a_clip_is_refused_and_leaves_no_hand_off(): void
    {
        $this->as()
            ->postJson($this->at('handoffs'), ['days' => [$this->day->ulid], 'bins' => []])
            ->assertStatus(422)
            ->assertJsonPath('code', 'handoff.empty');
        $this->postJson($this->at('handoffs'), ['days' => [], 'bins' => []])
            ->assertStatus(422)
            ->assertJsonPath('code', 'handoff.empty');
        self::assertSame(0, Handoff::query()->count());
    }

    public function test_another_productions_day_is_not_found_and_not_packed(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $other = Production::query()->create(['name' => 'High Road', 'rate_num' => 25, 'rate_den' => 1]);
        $day = ShootDay::query()->create([
            'ulid' => (string) Str::ulid(),
            'production_id' => $other->id,
            'number' => 1,
            'date' => '2026-10-05',
        ]);
        $this->as()
            ->postJson($this->at('handoffs'), ['days' => [$this->day->ulid, $day->ulid], 'bins' => []])
            ->assertNotFound();
        self::assertSame(0, Handoff::query()->count());
    }

    public function test_each_hand_off_has_a_number_and_a_folder_of_its_own_and_the_newest_stands_first(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $first = $this->handOff();
        $second = $this->handOff();
        self::assertSame([1, 2], [$first->number, $second->number]);
        self::assertNotSame($first->folder, $second->folder);
        foreach ([$first, $second] as $handoff) {
            self::assertTrue(Verify::folder($this->inbox($handoff))['ok']);
        }
        self::assertSame([2, 1], array_column($this->getJson($this->at('handoffs'))->assertOk()->json('handoffs'), 'number'));
    }

    public function test_a_clip_whose_media_is_not_there_is_named_and_the_rest_is_delivered(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $this->clip('B001C001', 'B', 12);
        $handoff = $this->handOff();
        self::assertSame(['delivered', ['B001C001'], 2], [$handoff->state, $handoff->summary['missing'], $handoff->summary['clips']]);
        self::assertStringEqualsFile($this->inbox($handoff) . '/proxies/import_A001C001.mp4', 'pictures of A001C001');
        self::assertFileDoesNotExist($this->inbox($handoff) . '/sound', 'an empty folder is not delivered');
    }

    public function test_a_picture_whose_recordings_copy_is_away_goes_with_the_cameras_sound_and_is_named(): void
    {
        $picture = $this->proxied('A001C001', 'A', 10);
        $sound = $this->clip('3-T01', 'S', 8, 60, more: ['channels' => [['index' => 1, 'name' => 'Boom', 'function' => null]]]);
        $this->place($picture, 10);
        $this->place($sound, 8);
        $handoff = $this->handOff();
        self::assertSame('delivered', $handoff->state);
        self::assertSame([['A001C001'], ['3-T01']], [$handoff->summary['unmixed'], $handoff->summary['missing']]);
        self::assertStringEqualsFile($this->inbox($handoff) . '/proxies/import_A001C001.mp4', 'pictures of A001C001');
    }

    public function test_a_bin_is_handed_off_without_the_rest_of_the_day(): void
    {
        $take = $this->take('3', 1);
        $this->proxied('A001C001', 'A', 10)
            ->parts()
            ->create(['take_id' => $take->id, 'said_by' => 'name']);
        $this->proxied('A001C002', 'A', 40);
        $handoff = $this->handOff(['scene:3']);
        self::assertSame(['scene 3', 1], [$handoff->title, $handoff->summary['clips']]);
        self::assertFileDoesNotExist($this->inbox($handoff) . '/proxies/import_A001C002.mp4');
    }

    public function test_a_folder_that_is_in_the_way_is_not_written_over_and_the_hand_off_says_so(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $folder = config('cartella.inbox') . '/' . $this->production->name . '/001 Day ' . $this->day->number;
        mkdir($folder, 0777, true);
        file_put_contents($folder . '/kept.txt', 'somebody else\'s');
        $handoff = $this->handOff();
        self::assertSame('failed', $handoff->state);
        self::assertSame(['kept.txt'], array_values(array_diff((array) scandir($folder), ['.', '..'])));
        $this->getJson($this->at('tasks'))->assertJsonFragment(['message' => 'A package of that name lies in the inbox already.']);
    }

    public function test_two_clips_of_one_name_are_two_files_in_the_package(): void
    {
        foreach (['one', 'two', 'three'] as $n => $content) {
            $clip = $this->clip(
                ['A001C001', 'A001C001', 'a001c001'][$n],
                'A',
                10 + $n,
                more: ['proxied_at' => now(), 'path_hash' => md5("$n")],
            );
            file_put_contents(MediaFolder::of($clip)->write(MediaFile::Proxy), $content);
        }
        $handoff = $this->handOff();
        $files = array_map(
            static fn(string $file): string => (string) file_get_contents($file),
            glob($this->inbox($handoff) . '/proxies/*') ?: [],
        );
        self::assertEqualsCanonicalizing(['one', 'two', 'three'], $files, 'also for systems that take capitals for the same');
        self::assertSame([], $handoff->summary['missing']);
        $log = (string) file_get_contents($this->inbox($handoff) . '/log.csv');
        self::assertStringContainsString('proxies/import_A001C001_2.mp4', $log, 'the log names each by its own file');
    }

    public function test_what_people_marked_and_named_goes_along_as_tables_and_in_the_reel(): void
    {
        $second = \Cartella\Core\Time\Ticks::PER_SECOND;
        $clip = $this->proxied('A001C001', 'A', 3600);
        $take = $this->take('3', 1, ['status' => 'circled']);
        $clip->parts()->create(['take_id' => $take->id, 'said_by' => 'name']);
        $user = $this->person();
        $clip->markers()->create([
            'kind' => 'person',
            'user_id' => $user->id,
            'in_ticks' => 2 * $second,
            'out_ticks' => 3 * $second,
            'name' => 'gull',
            'note' => 'over the line',
            'about' => 'sound',
        ]);
        $clip->subclips()->create(['name' => 'the turn', 'in_ticks' => $second, 'out_ticks' => 4 * $second, 'handle_ticks' => $second]);
        $this->actingAs($user)
            ->postJson($this->onDay('reels'), ['circled_only' => true])
            ->assertStatus(201);
        $inbox = $this->inbox($this->handOff());
        $markers = array_map(str_getcsv(...), file($inbox . '/markers.csv', FILE_IGNORE_NEW_LINES) ?: []);
        self::assertSame(
            ['A001C001', '3/1', '01:00:02:00', '01:00:03:00', 'gull', 'sound', 'over the line', $user->name],
            [$markers[1][0], ...array_slice($markers[1], 2, 1), ...array_slice($markers[1], 4)],
        );
        $subclips = array_map(str_getcsv(...), file($inbox . '/subclips.csv', FILE_IGNORE_NEW_LINES) ?: []);
        self::assertSame(['01:00:01:00', '01:00:04:00', 'the turn', '00:00:01:00'], array_slice($subclips[1], 4, 4));
        self::assertStringContainsString('* LOC: 01:00:02:00', (string) file_get_contents($inbox . '/reel.edl'));
        $reel = json_decode((string) file_get_contents($inbox . '/reel.otio'), true);
        $marker = $reel['tracks']['children'][0]['children'][0]['markers'][0];
        self::assertSame(['gull', 'sound: over the line'], [$marker['name'], $marker['comment']]);
        self::assertEquals(25, $marker['marked_range']['duration']['value']);
    }

    public function test_the_summary_is_counted_from_what_lies_in_the_package(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $handoff = $this->handOff();
        $there = $bytes = 0;
        foreach (FolderWalk::of($this->inbox($handoff)) as $facts) {
            $there += (int) ($facts['type'] === 'file');
            $bytes += $facts['type'] === 'file' ? $facts['size'] : 0;
        }
        self::assertSame([$there, $bytes], [$handoff->summary['files'], $handoff->summary['bytes']]);
    }

    public function test_a_job_that_was_killed_after_it_delivered_knows_its_own_package(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $handoff = $this->handOff();
        $summary = $handoff->summary;
        $handoff->update(['state' => 'packing', 'delivered_at' => null, 'summary' => null]);
        $task = Task::query()->where('kind', 'handoff')->sole();
        $task->update(['state' => 'running', 'ended_at' => null, 'result' => null]);
        PackJob::dispatchSync($task->id);
        self::assertSame(['delivered', $summary], [$handoff->refresh()->state, $handoff->summary]);
    }

    public function test_an_altered_byte_in_the_package_is_found_before_it_is_accepted(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $handoff = $this->handOff();
        file_put_contents($this->inbox($handoff) . '/proxies/import_A001C001.mp4', 'Pictures of A001C001');
        $this->as(Role::Editor)
            ->postJson($this->at("handoffs/$handoff->ulid/answer"), ['query' => null])
            ->assertOk()
            ->assertJsonPath('state', 'delivered');
        self::assertStringContainsString('import_A001C001.mp4', Task::query()->where('kind', 'accept')->sole()->result['message']);
    }

    public function test_a_hand_off_is_answered_once_by_those_who_may_and_never_before_it_is_delivered(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $handoff = $this->handOff();
        $answer = fn(?string $query) => $this->postJson($this->at("handoffs/$handoff->ulid/answer"), ['query' => $query]);
        $this->as(Role::Reviewer);
        $answer(null)->assertForbidden();
        $this->as(Role::Editor);
        $handoff->update(['delivered_at' => null]);
        $answer(null)->assertStatus(422)->assertJsonPath('code', 'handoff.packing');
        $handoff->update(['delivered_at' => now()]);
        $answer('Which take of 3 is circled?')->assertOk()->assertJsonPath('state', 'queried');
        $this->getJson($this->at('handoffs'))->assertJsonPath('handoffs.0.query', 'Which take of 3 is circled?');
        $answer(null)->assertOk()->assertJsonPath('state', 'accepted');
        $answer('Too late')->assertStatus(422)->assertJsonPath('code', 'handoff.answered');
    }

    public function test_a_file_that_was_put_into_the_package_afterwards_is_found_before_it_is_accepted(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $handoff = $this->handOff();
        file_put_contents($this->inbox($handoff) . '/extra.mov', 'not ours');
        $this->as(Role::Editor)
            ->postJson($this->at("handoffs/$handoff->ulid/answer"), ['query' => null])
            ->assertStatus(422)
            ->assertJsonPath('code', 'handoff.altered')
            ->assertJsonPath('context.new.0', 'extra.mov');
        self::assertSame('delivered', $handoff->refresh()->state);
    }
}
