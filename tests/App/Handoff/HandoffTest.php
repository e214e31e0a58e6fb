<?php

declare(strict_types=1);

namespace Tests\App\Handoff;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Handoff\HandoffQuestions;
use App\Domain\Handoff\PackageChoice;
use App\Domain\Handoff\PackedFiles;
use App\Domain\Handoff\PackingPlans;
use App\Domain\Handoff\PackJob;
use App\Models\Card;
use App\Models\Clip;
use App\Models\Handoff;
use App\Models\Passage;
use App\Models\Production;
use App\Models\Role;
use App\Models\ShootDay;
use App\Models\Task;
use App\Support\OwnFolder;
use Cartella\Core\Custody\FolderWalk;
use Cartella\Core\Custody\Verify;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Str;
use Tests\App\TestCase;
use Tests\App\Words\SaysWords;

/** What is packed, what is refused, and who may answer; the proxies are a few bytes, as the package does not look inside. */
final class HandoffTest extends TestCase
{
    use SaysWords;

    private function proxied(string $name, string $device, float $at): Clip
    {
        $clip = $this->clip($name, $device, $at, more: ['proxied_at' => now()]);
        file_put_contents(MediaFolder::of($clip)->write(MediaFile::Proxy), 'pictures of ' . $name);

        return $clip;
    }

    /**
     * @param  list<string>  $bins
     * @param  array<string, mixed>  $more
     */
    private function handOff(array $bins = [], array $more = []): Handoff
    {
        $choice = $more + ['days' => $bins === [] ? [$this->day->ulid] : [], 'bins' => $bins];
        $points = $this->as()->postJson($this->at('handoffs/plan'), $choice)->assertOk()->json('points');
        $waived = array_map(static fn(array $one): array => ['day' => $one['day'], 'point' => $one['key'], 'reason' => 'known'], $points);
        $ulid = $this->postJson($this->at('handoffs'), $choice + ['waived' => $waived])
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
        $second = Ticks::PER_SECOND;
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
        self::assertStringContainsString('* LOC: 01:00:02:00', (string) file_get_contents((glob($inbox . '/cuts/*.edl') ?: [''])[0]));
        $reel = json_decode((string) file_get_contents((glob($inbox . '/cuts/*.otio') ?: [''])[0]), true);
        $marker = $reel['tracks']['children'][0]['children'][0]['markers'][0];
        self::assertSame(['gull', 'sound: over the line'], [$marker['name'], $marker['comment']]);
        self::assertEquals(25, $marker['marked_range']['duration']['value']);
    }

    public function test_what_is_said_in_takes_goes_along_as_text_and_subtitles(): void
    {
        $said = $this->proxied('A001C001', 'A', 10);
        $said->parts()->create(['take_id' => $this->take('3', 1)->id, 'said_by' => 'name']);
        $this->proxied('A001C002', 'A', 40)
            ->parts()
            ->create(['take_id' => $this->take('3', 2)->id, 'said_by' => 'name']);
        $this->say($said, [[1, 'Read me the gauge.', 'Mara']]);
        $folder = $this->inbox($this->handOff());
        $files = array_map(basename(...), glob("$folder/takes/*/*.{txt,srt,vtt}", GLOB_BRACE) ?: []);
        sort($files);
        self::assertSame(['3-1.srt', '3-1.txt', '3-1.vtt'], $files);
        self::assertStringContainsString('MARA: Read me the gauge.', (string) file_get_contents("$folder/takes/3/3-1.srt"));
        self::assertTrue(Verify::folder($folder)['ok']);
        $without = $this->inbox($this->handOff(more: ['lists' => ['otio']]));
        self::assertSame([], glob("$without/takes/*/*.{txt,srt,vtt}", GLOB_BRACE));
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
        $this->as(Role::Editor)->postJson($this->at("handoffs/$handoff->ulid/accept"))->assertOk()->assertJsonPath('state', 'delivered');
        self::assertStringContainsString('import_A001C001.mp4', Task::query()->where('kind', 'accept')->sole()->result['message']);
    }

    public function test_a_hand_off_is_accepted_by_those_who_may_and_never_before_it_is_delivered(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $handoff = $this->handOff();
        $accept = fn() => $this->postJson($this->at("handoffs/$handoff->ulid/accept"));
        $this->as(Role::Reviewer);
        $accept()->assertForbidden();
        $this->as(Role::Editor);
        $handoff->update(['delivered_at' => null]);
        $accept()->assertStatus(422)->assertJsonPath('code', 'handoff.packing');
        $handoff->update(['delivered_at' => now()]);
        $accept()->assertOk()->assertJsonPath('state', 'accepted');
        $accept()->assertStatus(422)->assertJsonPath('code', 'handoff.answered');
    }

    public function test_an_acceptance_is_taken_back_until_the_next_package(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $handoff = $this->handOff();
        $path = $this->at("handoffs/$handoff->ulid/accept");
        $this->as(Role::Editor)->deleteJson($path)->assertStatus(422)->assertJsonPath('code', 'handoff.not_accepted');
        $this->postJson($path)->assertJsonPath('state', 'accepted');
        $this->deleteJson($path)->assertOk();
        self::assertSame('delivered', $handoff->refresh()->state);
        $this->postJson($path)->assertJsonPath('state', 'accepted');
        $this->handOff();
        $this->as(Role::Editor)->deleteJson($path)->assertStatus(422)->assertJsonPath('code', 'handoff.later');
    }

    public function test_a_question_is_an_open_point_that_leads_to_its_take_and_its_answer_goes_with_the_next_package(): void
    {
        $take = $this->take('3', 1);
        $this->proxied('A001C001', 'A', 10)
            ->parts()
            ->create(['take_id' => $take->id, 'said_by' => 'name']);
        $handoff = $this->handOff();
        $ask = fn(?string $path) => $this->postJson($this->at("handoffs/$handoff->ulid/questions"), [
            'question' => 'Half a second late?',
            'path' => $path,
        ]);
        $this->as(Role::Reviewer);
        $ask(null)->assertForbidden();
        $this->as(Role::Editor);
        $ask('../../etc/passwd')->assertNotFound();
        $question = $ask('takes/3/3-1.otio')->assertStatus(201)->json('ulid');
        self::assertSame('queried', $handoff->refresh()->state);
        $point = collect($this->as()->getJson($this->onDay('sheet'))->assertOk()->json('points'))->firstWhere('key', "question.$question");
        self::assertSame(['Half a second late?', $take->ulid], [$point['evidence'] ?? null, $point['place']['take'] ?? null]);
        $answer = fn(?string $text) => $this->putJson($this->at("handoffs/$handoff->ulid/questions/$question"), ['answer' => $text]);
        $answer('Nudged by twelve frames.')->assertOk();
        $answer('Twice')->assertStatus(409);
        self::assertNull(collect($this->getJson($this->onDay('sheet'))->json('points'))->firstWhere('key', "question.$question"));
        $answer(null)->assertOk();
        $answer('Nudged by twelve frames.')->assertOk();
        $this->travel(2)->seconds();
        $next = $this->handOff();
        self::assertSame(
            [['question' => 'Half a second late?', 'answer' => 'Nudged by twelve frames.']],
            HandoffQuestions::answersGoingWith($next),
        );
        $answer(null)->assertStatus(422)->assertJsonPath('code', 'question.gone');
    }

    public function test_nothing_goes_while_a_point_stands_open_without_a_reason_and_the_reason_travels(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $first = $this->handOff();
        $this->as(Role::Editor)
            ->postJson($this->at("handoffs/$first->ulid/questions"), ['question' => 'Where is B?'])
            ->assertStatus(201);
        $choice = ['days' => [$this->day->ulid], 'bins' => []];
        $points = $this->as()->postJson($this->at('handoffs/plan'), $choice)->assertOk()->json('points');
        self::assertSame(['Where is B?'], array_column($points, 'evidence'));
        $this->postJson($this->at('handoffs'), $choice)->assertStatus(422)->assertJsonPath('code', 'handoff.gate');
        self::assertSame(1, Handoff::query()->count());
        $handoff = $this->handOff();
        $open = (string) file_get_contents($this->inbox($handoff) . '/reports/open points.csv');
        self::assertStringContainsString($points[0]['title'], $open);
        self::assertStringContainsString('known', $open);
        $this->getJson($this->at("handoffs/$handoff->ulid"))->assertOk()->assertJsonPath('handoff.waived.0.reason', 'known');
    }

    public function test_what_is_new_changed_and_moved_is_told_since_what_was_accepted_and_goes_alone(): void
    {
        $kept = $this->proxied('A001C001', 'A', 10);
        $made = $this->proxied('A001C002', 'A', 40);
        $first = $this->handOff();
        $this->as(Role::Editor)->postJson($this->at("handoffs/$first->ulid/accept"))->assertJsonPath('state', 'accepted');
        $since = fn() => $this->as()
            ->postJson($this->at('handoffs/plan'), ['days' => [], 'bins' => [], 'since' => true])
            ->assertOk();
        self::assertSame([1, 0, []], [$since()->json('since'), $since()->json('clips'), $since()->json('rows')]);
        $this->postJson($this->at('handoffs'), ['days' => [], 'bins' => [], 'since' => true])->assertJsonPath(
            'code',
            'handoff.nothing_new',
        );
        $this->travel(2)->seconds();
        $made->update(['proxied_at' => now()]);
        $this->proxied('A001C003', 'A', 70);
        $row = $since()->json('rows.0');
        self::assertSame(['proxies/', 1, 1, 2], [$row['folder'], $row['new'], $row['changed'], $row['count']]);
        $second = $this->handOff(more: ['days' => [], 'since' => true]);
        self::assertSame(['New since 1', 2], [$second->title, $second->summary['clips']]);
        self::assertFileDoesNotExist($this->inbox($second) . "/proxies/import_$kept->name.mp4");
    }

    public function test_a_cut_that_is_chosen_by_its_name_takes_no_other_of_the_same_clips_along(): void
    {
        $take = $this->take('3', 1, ['status' => 'circled']);
        $clip = $this->clip('A001C001', 'A', 8, 10, $take);
        $this->as();
        [$first, $second] = array_map(
            fn(): array => $this->postJson($this->at('string-outs'), ['of' => 'circled', 'scene' => '3'])
                ->assertCreated()
                ->json(),
            [1, 2],
        );
        self::assertSame("$first[name], 2", $second['name'], 'two of one name cannot be told apart');
        $cuts = fn(array $choice): array => array_column(
            $this->postJson($this->at('handoffs/plan'), $choice + ['days' => [], 'bins' => []])
                ->assertOk()
                ->json('rows'),
            'names',
            'folder',
        )['cuts/'];
        self::assertSame([$first['name']], $cuts(['sequences' => [$first['ulid']]]));
        self::assertEqualsCanonicalizing([$first['name'], $second['name']], $cuts(['days' => [$clip->day->ulid]]));
    }

    public function test_words_corrected_since_go_with_what_is_new_where_words_go(): void
    {
        $take = $this->take('7', 1);
        $picture = $this->proxied('A001C001', 'A', 10);
        $picture->parts()->create(['take_id' => $take->id, 'said_by' => 'name']);
        $sound = $this->clip('T01', 'S', 10, 10, $take);
        $this->say($sound, [[1, 'Reed me the gauge.', null]]);
        $first = $this->handOff(more: ['sound' => 'none', 'lists' => ['words']]);
        $this->as(Role::Editor)->postJson($this->at("handoffs/$first->ulid/accept"))->assertJsonPath('state', 'accepted');
        $since = fn(): int => $this->as()
            ->postJson($this->at('handoffs/plan'), ['days' => [], 'bins' => [], 'since' => true, 'sound' => 'none', 'lists' => ['words']])
            ->assertOk()
            ->json('clips');
        self::assertSame(0, $since());
        $this->travel(2)->seconds();
        $passage = Passage::query()->sole();
        $this->patchJson($this->at("clips/$sound->ulid/passages/$passage->ulid"), [
            'from' => 0,
            'was' => ['Reed'],
            'text' => 'Read',
        ])->assertOk();
        self::assertGreaterThan(0, $since());
    }

    public function test_media_lie_and_are_called_as_the_productions_last_package_had_it(): void
    {
        $take = $this->take('3A', 1);
        $this->proxied('A001C001', 'A', 10)
            ->parts()
            ->create(['take_id' => $take->id, 'said_by' => 'name']);
        $handoff = $this->handOff(more: ['folders' => 'scene', 'pattern' => '{setup}-{take:2} {device}']);
        self::assertFileExists($this->inbox($handoff) . '/proxies/3/3A-01 A.mp4');
        $this->getJson($this->at('handoffs'))->assertJsonPath('folders', 'scene')->assertJsonPath('pattern', '{setup}-{take:2} {device}');
        $this->postJson($this->at('handoffs/plan'), ['days' => [$this->day->ulid], 'bins' => [], 'pattern' => '{nothing'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'handoff.pattern');
    }

    public function test_a_package_that_is_stopped_leaves_nothing_behind(): void
    {
        $this->proxied('A001C001', 'A', 10);
        config(['queue.default' => 'null']);
        $handoff = $this->handOff();
        $task = Task::query()->where('kind', 'handoff')->sole();
        $task->update(['cancel_asked_at' => now()]);
        config(['queue.default' => 'sync']);
        PackJob::dispatchSync($task->id);
        self::assertSame('stopped', $handoff->refresh()->state);
        self::assertSame([], array_values(array_diff((array) scandir(dirname($this->inbox($handoff))), ['.', '..'])));
    }

    public function test_a_run_that_was_stopped_goes_on_behind_what_was_finished(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $this->proxied('A001C002', 'A', 40);
        config(['queue.default' => 'null']);
        $handoff = $this->handOff();
        $work = dirname($this->inbox($handoff)) . "/.$handoff->ulid.part";
        OwnFolder::make($work);
        $plan = app(PackingPlans::class)->of($this->production, PackageChoice::fromArray($handoff->chosen));
        $files = new PackedFiles($work, static fn() => null);
        $item = $plan->items[0];
        file_put_contents("$this->folder/other", 'what a former run had finished');
        $files->copy("$this->folder/other", $item->path, $item->mark);
        // The second one was cut off in the middle, and a line of the journal with it.
        file_put_contents("$work/{$plan->items[1]->path}", 'half');
        file_put_contents("$work/.packed", '{"path": "proxies/import_A00', FILE_APPEND);
        unset($files);
        config(['queue.default' => 'sync']);
        PackJob::dispatchSync(Task::query()->where('kind', 'handoff')->sole()->id);
        self::assertStringEqualsFile($this->inbox($handoff) . "/$item->path", 'what a former run had finished', 'it was not copied again');
        self::assertStringEqualsFile($this->inbox($handoff) . "/{$plan->items[1]->path}", 'pictures of A001C002');
        self::assertTrue(Verify::folder($this->inbox($handoff))['ok']);
        self::assertDirectoryDoesNotExist($work);
    }

    public function test_what_could_not_be_reached_is_new_the_next_time(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $away = $this->clip('A001C002', 'A', 40);
        $first = $this->handOff();
        self::assertSame(['A001C002'], $first->summary['missing']);
        $this->as(Role::Editor)->postJson($this->at("handoffs/$first->ulid/accept"))->assertJsonPath('state', 'accepted');
        file_put_contents(MediaFolder::of($away)->write(MediaFile::Proxy), 'here by now');
        $second = $this->handOff(more: ['days' => [], 'since' => true]);
        self::assertSame(
            ['proxies/import_A001C002.mp4'],
            array_map(
                fn(string $file): string => substr($file, strlen($this->inbox($second)) + 1),
                glob($this->inbox($second) . '/proxies/*') ?: [],
            ),
        );
    }

    public function test_a_take_whose_log_changed_is_told_anew_with_its_media_where_they_were_delivered(): void
    {
        $take = $this->take('3', 1);
        $this->proxied('A001C001', 'A', 3600)
            ->parts()
            ->create(['take_id' => $take->id, 'said_by' => 'name']);
        $first = $this->handOff();
        $this->as(Role::Editor)->postJson($this->at("handoffs/$first->ulid/accept"))->assertJsonPath('state', 'accepted');
        $take->update(['status' => 'circled', 'notes' => 'the good one']);
        $second = $this->handOff(more: ['days' => [], 'since' => true]);
        $inbox = $this->inbox($second);
        self::assertFileDoesNotExist("$inbox/proxies", 'its media have not changed');
        $clip = json_decode((string) file_get_contents("$inbox/takes/3/3-1.otio"), true)['tracks']['children'][0]['children'][0];
        self::assertSame('the good one', $clip['metadata']['cartella']['notes']);
        self::assertFileExists("$inbox/takes/3/" . rawurldecode($clip['media_references']['DEFAULT_MEDIA']['target_url']));
        self::assertStringContainsString('the good one', (string) file_get_contents("$inbox/log.csv"));
    }

    public function test_a_recording_of_several_files_is_whole_after_a_run_that_was_stopped_between_them(): void
    {
        $card = Card::query()->create([
            'production_id' => $this->production->id,
            'shoot_day_id' => $this->day->id,
            'roll' => 'A001',
            'volume' => 'A001',
            'state' => 'done',
        ]);
        mkdir("$this->folder/one/card");
        foreach (['one', 'two'] as $part) {
            file_put_contents("$this->folder/one/card/$part.mov", "part $part");
        }
        $card->copies()->create(['store' => 'one', 'path' => 'card']);
        $this->clip('one', 'A', 10, more: ['card_id' => $card->id, 'path' => 'one.mov', 'facts' => ['parts' => ['one.mov', 'two.mov']]]);
        config(['queue.default' => 'null']);
        $handoff = $this->handOff(more: ['picture' => 'originals']);
        $work = dirname($this->inbox($handoff)) . "/.$handoff->ulid.part";
        OwnFolder::make($work);
        $plan = app(PackingPlans::class)->of($this->production, PackageChoice::fromArray($handoff->chosen));
        (new PackedFiles($work, static fn(): null => null))->copy(
            "$this->folder/one/card/one.mov",
            $plan->items[0]->path,
            $plan->items[0]->mark,
        );
        config(['queue.default' => 'sync']);
        PackJob::dispatchSync(Task::query()->where('kind', 'handoff')->sole()->id);
        foreach (['one', 'two'] as $part) {
            self::assertStringEqualsFile($this->inbox($handoff) . "/originals/A001/$part.mov", "part $part");
        }
    }

    public function test_a_package_is_looked_through_and_nothing_else_of_the_inbox(): void
    {
        $take = $this->take('3', 1);
        $this->proxied('A001C001', 'A', 3600)
            ->parts()
            ->create(['take_id' => $take->id, 'said_by' => 'name']);
        $handoff = $this->handOff();
        $this->as(Role::Editor);
        $files = collect($this->getJson($this->at("handoffs/$handoff->ulid"))->assertOk()->json('files'));
        self::assertSame($take->ulid, $files->firstWhere('path', 'takes/3/3-1.otio')['take'] ?? null);
        foreach (['otio', 'edl', 'aaf'] as $format) {
            $opened = $this->getJson($this->at("handoffs/$handoff->ulid/list?path=takes/3/3-1.$format"))->assertOk();
            self::assertSame(
                ['A001C001', '01:00:00:00', '01:00:10:00'],
                [$opened->json('events.0.name'), $opened->json('events.0.source_in'), $opened->json('events.0.source_out')],
                $format,
            );
        }
        $file = $this->get($this->at("handoffs/$handoff->ulid/file?path=proxies/import_A001C001.mp4"))->assertOk();
        $file->assertHeader(
            'X-Accel-Redirect',
            '/delivered/' . implode('/', array_map(rawurlencode(...), explode('/', "$handoff->folder/proxies/import_A001C001.mp4"))),
        );
        foreach (['../../secret', 'ascmhl/ascmhl_chain.xml', '/etc/passwd', 'proxies'] as $path) {
            $this->get($this->at("handoffs/$handoff->ulid/file?path=" . urlencode($path)))->assertNotFound();
        }
    }

    public function test_what_belongs_to_another_production_is_not_found(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $handoff = $this->handOff();
        $other = Production::query()->create(['name' => 'High Road', 'rate_num' => 25, 'rate_den' => 1]);
        $stranger = $this->person(Role::Assistant, false);
        $other->users()->attach($stranger);
        $this->actingAs($stranger);
        foreach (
            ["handoffs/$handoff->ulid", "handoffs/$handoff->ulid/file?path=log.csv", "handoffs/$handoff->ulid/list?path=x.edl"]
            as $path
        ) {
            $this->getJson($this->at($path))->assertNotFound();
            $this->getJson("/api/productions/$other->ulid/$path")->assertNotFound();
        }
        $this->postJson("/api/productions/$other->ulid/handoffs/$handoff->ulid/accept")->assertNotFound();
        $this->putJson("/api/productions/$other->ulid/handoffs/$handoff->ulid/questions/01ARZ3NDEKTSV4RRFFQ69G5FAV", [
            'answer' => 'x',
        ])->assertNotFound();
    }

    public function test_a_file_that_was_put_into_the_package_afterwards_is_found_before_it_is_accepted(): void
    {
        $this->proxied('A001C001', 'A', 10);
        $handoff = $this->handOff();
        file_put_contents($this->inbox($handoff) . '/extra.mov', 'not ours');
        $this->as(Role::Editor)
            ->postJson($this->at("handoffs/$handoff->ulid/accept"))
            ->assertStatus(422)
            ->assertJsonPath('code', 'handoff.altered')
            ->assertJsonPath('context.new.0', 'extra.mov');
        self::assertSame('delivered', $handoff->refresh()->state);
    }

    public function test_the_days_reports_go_along_and_a_reel_that_shows_other_days_does_not(): void
    {
        $take = $this->take('3', 1);
        $this->proxied('A001C001', 'A', 10)
            ->parts()
            ->create(['take_id' => $take->id, 'said_by' => 'name']);
        $this->as()
            ->postJson($this->onDay('reels'), ['circled_only' => false, 'name' => 'Of the day'])
            ->assertStatus(201);
        $other = ShootDay::query()->create(['production_id' => $this->production->id, 'number' => 2, 'date' => '2026-10-06']);
        $elsewhere = $this->proxied('A002C001', 'A', 10);
        $elsewhere->update(['shoot_day_id' => $other->id]);
        $elsewhere->parts()->create(['take_id' => $this->take('3', 2, ['shoot_day_id' => $other->id])->id, 'said_by' => 'name']);
        $this->postJson($this->onDay('reels'), ['circled_only' => false, 'from' => 'scenes', 'what' => ['3']])->assertStatus(201);
        $inbox = $this->inbox($handoff = $this->handOff());
        self::assertSame('Of the day', $handoff->summary['reel']);
        self::assertStringNotContainsString('A002C001', (string) file_get_contents("$inbox/cuts/Of the day.otio"));
        foreach (['Day 1, camera report', 'Day 1, sound report', 'Day 1, daily log'] as $report) {
            self::assertStringStartsWith('%PDF-', (string) @file_get_contents("$inbox/reports/$report.pdf"), $report);
        }
        self::assertTrue(Verify::folder($inbox)['ok'], 'the manifest knows them');
    }
}
