<?php

declare(strict_types=1);

namespace Tests\App\Handoff;

use App\Domain\Sequences\ToldChanges;
use App\Models\Card;
use App\Models\Clip;
use App\Models\Production;
use App\Models\Role;
use App\Models\StoredSequence;
use Cartella\Core\Custody\Verify;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Source;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Exchange\Otio\OtioReader;
use Cartella\Core\Media\Probe;
use Cartella\Core\Process;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\File;
use Illuminate\Testing\TestResponse;
use Tests\App\TestCase;

/** Lists come back from the editing team: linked to what is here, with a reason each, and nothing else is changed by them. */
final class BackTest extends TestCase
{
    private const HEAD = "TITLE: Scene 3\nFCM: NON-DROP FRAME\n\n";

    private function rolled(string $name, string $roll, float $at, float $seconds = 60): Clip
    {
        $card = Card::query()->firstOrCreate(
            ['production_id' => $this->production->id, 'roll' => $roll],
            ['shoot_day_id' => $this->day->id, 'device_id' => $this->devices['A']->id, 'volume' => $roll, 'state' => 'done'],
        );

        return $this->clip(
            $name,
            'A',
            $at,
            $seconds,
            more: ['card_id' => $card->id, 'path' => "CLIPS/$name.mov", 'path_hash' => md5($roll . $name)],
        );
    }

    private static function event(int $number, string $reel, string $in, string $out, int $at, string $name = '', string $file = ''): string
    {
        return sprintf(
            "%03d  %-8s V     C        %s %s 01:00:%02d:00 01:00:%02d:00\n%s%s",
            $number,
            $reel,
            $in,
            $out,
            $at,
            $at + 2,
            $name === '' ? '' : "* FROM CLIP NAME: $name\n",
            $file === '' ? '' : "* SOURCE FILE: $file\n",
        );
    }

    /** @param  array<string, string>  $more */
    private function bring(string $text, string $name = 'scene 3.edl', array $more = []): TestResponse
    {
        return $this->as()->post($this->at('received'), ['file' => UploadedFile::fake()->createWithContent($name, $text)] + $more, [
            'Accept' => 'application/json',
        ]);
    }

    public function test_events_are_linked_with_their_reasons_and_the_production_stays_as_it_is(): void
    {
        $clip = $this->rolled('A003C001', 'A003', 36_000);
        $before = [$this->production->fresh()?->getAttributes(), Clip::query()->count()];
        $ulid = $this->bring(
            self::HEAD .
                self::event(1, 'A003', '10:00:10:00', '10:00:12:00', 0) .
                self::event(2, 'A003', '10:41:07:00', '10:41:09:00', 2) .
                "rubbish\n" .
                self::event(3, 'Z001', '10:00:10:00', '10:00:12:00', 4, 'Nothing here'),
        )
            ->assertStatus(201)
            ->json('ulid');
        $list = $this->getJson($this->at("received/$ulid"))->assertOk();
        self::assertSame([3, 1, 'edl', '25'], [$list->json('total'), $list->json('linked'), $list->json('format'), $list->json('rate')]);
        self::assertSame(['timecode', $clip->ulid], [$list->json('events.0.way'), $list->json('events.0.clip')]);
        self::assertSame('Reel A003 is here, but not at 10:41:07:00: the card ends at 10:01:00:00.', $list->json('events.1.reason'));
        self::assertStringContainsString('Reel Z001 is not here', $list->json('events.2.reason'));
        self::assertSame([['where' => 'line 6', 'reason' => '"rubbish" is no line of such a list.']], $list->json('problems'));
        self::assertSame($before, [$this->production->fresh()?->getAttributes(), Clip::query()->count()]);
        $this->getJson($this->at('received'))->assertJsonPath('lists.0.linked', 1);
        $this->getJson($this->at("clips/$clip->ulid/uses"))->assertJsonPath('uses.0.sequence', $ulid);
    }

    public function test_the_same_list_comes_in_once_and_again_after_it_was_taken_away(): void
    {
        $text = self::HEAD . self::event(1, 'A003', '10:00:10:00', '10:00:12:00', 0);
        $ulid = $this->bring($text)->assertStatus(201)->json('ulid');
        $this->bring($text, 'another name.edl')->assertStatus(409)->assertJsonPath('context.sequence', $ulid);
        $this->deleteJson($this->at("sequences/$ulid"))->assertOk();
        $this->bring($text)->assertStatus(201);
    }

    public function test_a_hand_link_offers_what_else_came_from_the_same_folder_and_is_taken_back(): void
    {
        $clips = [$this->rolled('A003C001', 'A003', 36_000), $this->rolled('A003C002', 'A003', 36_100)];
        $ulid = $this->bring(
            self::HEAD .
                self::event(1, 'WRONG', '10:00:10:00', '10:00:12:00', 0, 'one') .
                self::event(2, 'WRONG', '10:01:50:00', '10:01:52:00', 2, 'two'),
        )->json('ulid');
        $first = ['track' => 0, 'index' => 0, 'clip' => $clips[0]->ulid];
        $others = $this->postJson($this->at("received/$ulid/links/others"), ['links' => [$first]])
            ->assertOk()
            ->json('others');
        self::assertSame([[1, $clips[1]->ulid]], array_map(static fn(array $one): array => [$one['index'], $one['clip']], $others));
        $this->postJson($this->at("received/$ulid/links"), ['links' => [$first]])->assertOk();
        self::assertSame(['hand', 'none'], array_column($this->getJson($this->at("received/$ulid"))->json('events'), 'way'));
        $this->postJson($this->at("received/$ulid/links"), [
            'links' => [['track' => 0, 'index' => 1, 'clip' => $clips[1]->ulid]],
        ])->assertOk();
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(['hand', 'none'], array_column($this->getJson($this->at("received/$ulid"))->json('events'), 'way'));
        // A clip that does not hold what the event shows is none.
        $this->postJson($this->at("received/$ulid/links"), ['links' => [['track' => 0, 'index' => 1, 'clip' => $clips[0]->ulid]]])
            ->assertStatus(422)
            ->assertJsonPath('code', 'list.link');
    }

    public function test_of_two_people_on_one_event_the_second_is_told(): void
    {
        $clips = [$this->rolled('A003C001', 'A003', 36_000), $this->rolled('B003C001', 'B003', 36_000)];
        $ulid = $this->bring(self::HEAD . self::event(1, 'WRONG', '10:00:10:00', '10:00:12:00', 0))->json('ulid');
        $link = fn(Clip $clip, ?string $was) => $this->postJson($this->at("received/$ulid/links"), [
            'links' => [['track' => 0, 'index' => 0, 'clip' => $clip->ulid, 'was' => $was]],
        ]);
        $link($clips[0], null)->assertOk();
        $link($clips[1], null)->assertStatus(409)->assertJsonPath('code', 'list.linked');
        $this->getJson($this->at("received/$ulid"))->assertJsonPath('events.0.clip', $clips[0]->ulid);
        $link($clips[1], $clips[0]->ulid)->assertOk();
    }

    public function test_a_card_that_comes_in_later_links_what_was_open(): void
    {
        $ulid = $this->bring(self::HEAD . self::event(1, 'A009', '10:00:10:00', '10:00:12:00', 0))->json('ulid');
        $this->postJson($this->at("received/$ulid/again"))->assertOk()->assertJsonPath('count', 0);
        $this->rolled('A009C001', 'A009', 36_000);
        $this->postJson($this->at("received/$ulid/again"))->assertJsonPath('count', 1);
        $this->getJson($this->at("received/$ulid"))->assertJsonPath('linked', 1);
    }

    public function test_what_became_of_a_cut_is_told(): void
    {
        $this->rolled('A003C001', 'A003', 36_000);
        $before = $this->bring(
            self::HEAD . self::event(1, 'A003', '10:00:10:00', '10:00:12:00', 0) . self::event(2, 'A003', '10:00:30:00', '10:00:32:00', 2),
        )->json('ulid');
        $after = $this->bring(self::HEAD . self::event(1, 'A003', '10:00:30:12', '10:00:32:12', 0), 'later.edl')->json('ulid');
        $found = $this->getJson($this->at("sequences/$after/compare?with=$before"))->assertOk();
        self::assertEqualsCanonicalizing(['gone', 'slipped'], array_column($found->json('changes'), 'kind'));
        $this->getJson($this->at("sequences/$after/compare?with=01ARZ3NDEKTSV4RRFFQ69G5FAV"))->assertNotFound();
    }

    public function test_it_is_compared_with_the_cut_that_shows_the_same_before_any_newer_one(): void
    {
        $this->rolled('A003C001', 'A003', 36_000);
        $this->rolled('A004C001', 'A004', 36_000);
        $list = fn(string $title, string ...$reels): string => (string) $this->bring(
            "TITLE: $title\nFCM: NON-DROP FRAME\n\n" .
                implode(
                    array_map(
                        static fn(string $reel, int $n): string => self::event($n + 1, $reel, '10:00:10:00', '10:00:12:00', 2 * $n),
                        $reels,
                        array_keys($reels),
                    ),
                ),
            "$title.edl",
        )
            ->assertCreated()
            ->json('ulid');
        $list('Mill', 'A003');
        $list('Both', 'A003', 'A004');
        $list('Gate', 'A004');
        $now = $list('Second of the mill', 'A003');
        self::assertSame(
            ['Mill', 'Both', 'Gate'],
            array_column($this->getJson($this->at("received/$now"))->assertOk()->json('others'), 'name'),
        );
    }

    public function test_sound_that_a_list_rounded_to_frames_has_moved_by_what_its_length_says(): void
    {
        $frame = 28_224_000;
        $rate = FrameRate::parse('25');
        $source = new Source('S', 'S', null, null, 0, 1000 * $frame, $rate);
        $cut = static fn(int $from, int $length): Sequence => new Sequence('x', $rate, 0, [
            new Track(TrackKind::Sound, 'A', [new Item('T', $source, $from, $length, 0)]),
        ]);
        $sent = $cut(100 * $frame + intdiv(6 * $frame, 10), 200 * $frame);
        self::assertSame(
            ['shorter: begins 50 frames later'],
            array_column(ToldChanges::of($sent, $cut(150 * $frame, 150 * $frame))['changes'], 'words'),
        );
        self::assertSame(
            ['shorter: ends 50 frames earlier'],
            array_column(ToldChanges::of($sent, $cut(100 * $frame, 150 * $frame))['changes'], 'words'),
        );
    }

    public function test_the_originals_of_a_cut_are_pulled_whole_or_as_far_as_it_needs_them(): void
    {
        $clip = $this->rolled('S003T001', 'S003', 36_000, 20);
        $clip->update(['kind' => 'sound', 'path' => 'S003T001.wav', 'sample_rate' => 48_000]);
        $lost = $this->rolled('A003C001', 'A003', 36_000, 60);
        $folder = "$this->folder/one/card";
        mkdir($folder, 0777, true);
        self::assertSame(
            0,
            Process::run(
                ['ffmpeg', '-v', 'error', '-f', 'lavfi', '-i', 'anoisesrc=r=48000:d=20', '-c:a', 'pcm_s16le', "$folder/S003T001.wav"],
                null,
                60,
            )['status'],
        );
        $clip->card->copies()->create(['store' => 'one', 'path' => 'card']);
        $list =
            self::HEAD .
            str_replace(' V  ', ' A  ', self::event(1, 'S003', '10:00:10:00', '10:00:12:00', 0)) .
            self::event(2, 'A003', '10:00:10:00', '10:00:12:00', 2);
        $ulid = $this->bring($list)->json('ulid');
        $pull = fn(bool $isTrimmed) => $this->postJson($this->at("sequences/$ulid/pull"), [
            'handles' => 25,
            'trimmed' => $isTrimmed,
        ])->assertStatus(202);
        $pull(false);
        $found = fn(): string => (glob("$this->folder/inbox/*/Pull*") ?: [''])[0];
        self::assertTrue(Verify::folder($found())['ok']);
        self::assertFileEquals("$folder/S003T001.wav", $found() . '/S003/S003T001.wav');
        self::assertStringContainsString($lost->name, (string) file_get_contents($found() . '/pull.csv'), 'what is away is named');
        $this->travel(2)->seconds();
        File::deleteDirectory($found());
        $pull(true);
        $part = Probe::file($found() . '/S003/S003T001_1.wav');
        self::assertEqualsWithDelta(
            4 * Ticks::PER_SECOND,
            $part->durationTicks,
            0.1 * Ticks::PER_SECOND,
            'two seconds, and one on either side',
        );
        self::assertEqualsWithDelta((36_000 + 9) * Ticks::PER_SECOND, $part->startTicks, 0.1 * Ticks::PER_SECOND);
        $cut = OtioReader::read((string) file_get_contents($found() . '/cut.otio'))->sequence;
        self::assertSame('S003/S003T001_1.wav', $cut->tracks[1]->items[0]->source->path);
    }

    public function test_what_is_no_list_is_refused_in_a_sentence(): void
    {
        foreach (
            ['' => 'empty.edl', 'hello' => 'words.edl', '{"a": 1}' => 'x.otio', "\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1" => 'x.aaf']
            as $text => $name
        ) {
            $this->bring((string) $text, $name)->assertStatus(422);
        }
        $this->bring(self::HEAD . self::event(1, 'A', '10:00:10:00', '10:00:12:00', 0), more: ['rate' => '26'])->assertStatus(422);
        self::assertSame(0, StoredSequence::query()->count());
    }

    public function test_who_may_not_work_brings_nothing_and_another_production_finds_nothing(): void
    {
        $ulid = $this->bring(self::HEAD . self::event(1, 'A003', '10:00:10:00', '10:00:12:00', 0))->json('ulid');
        $this->as(Role::Reviewer)->getJson($this->at("received/$ulid"))->assertOk();
        foreach (['links', 'links/others', 'again'] as $path) {
            $this->postJson($this->at("received/$ulid/$path"), [])->assertForbidden();
        }
        $this->postJson($this->at('received'), [])->assertForbidden();
        $this->postJson($this->at("sequences/$ulid/pull"), [])->assertForbidden();
        $other = Production::query()->create(['name' => 'High Road', 'rate_num' => 25, 'rate_den' => 1]);
        $stranger = $this->person(Role::Assistant, false);
        $other->users()->attach($stranger);
        $this->actingAs($stranger);
        foreach (["received/$ulid", "sequences/$ulid/compare?with=$ulid"] as $path) {
            $this->getJson("/api/productions/$other->ulid/$path")->assertNotFound();
        }
        $this->postJson("/api/productions/$other->ulid/received/$ulid/again")->assertNotFound();
        $this->postJson("/api/productions/$other->ulid/sequences/$ulid/pull", ['handles' => 0, 'trimmed' => false])->assertNotFound();
    }
}
