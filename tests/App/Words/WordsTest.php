<?php

declare(strict_types=1);

namespace Tests\App\Words;

use App\Domain\Words\ActionCalls;
use App\Domain\Words\KeepWords;
use App\Models\Clip;
use App\Models\Passage;
use App\Models\Role;
use App\Models\Scene;
use App\Models\StoredSequence;
use App\Models\TakePart;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Words\Transcript as Words;
use Cartella\Core\Words\Word;
use Tests\App\TestCase;

/** What is said in clips: brought, read under pictures, corrected by several people, found, used, written out. */
final class WordsTest extends TestCase
{
    use SaysWords;

    private const S = Ticks::PER_SECOND;

    private function passage(Clip $clip, int $at = 0): Passage
    {
        return Passage::query()->where('clip_id', $clip->id)->orderBy('start_ticks')->get()[$at];
    }

    private function text(Clip $clip): string
    {
        return Passage::query()
            ->where('clip_id', $clip->id)
            ->orderBy('start_ticks')
            ->get()
            ->map(static fn(Passage $one): string => implode(' ', array_column($one->words, 0)))
            ->implode(' / ');
    }

    public function test_a_picture_has_the_words_of_the_recording_under_it(): void
    {
        $camera = $this->clip('A001C001', 'A', 10, 10);
        $sound = $this->clip('T01', 'S', 8, 20);
        $this->place($camera, 10);
        $this->place($sound, 8);
        $this->say($sound, [[0.5, 'too early', null], [4, 'Read me the gauge.', 'Mara'], [16, 'too late', null]]);
        $answer = $this->as(Role::Reviewer)->getJson($this->at("clips/$camera->ulid/words"))->assertOk();
        $answer
            ->assertJsonCount(1, 'sources')
            ->assertJsonPath('sources.0.clip', $sound->ulid)
            ->assertJsonPath('sources.0.offset_ticks', -2 * self::S);
        $answer->assertJsonCount(1, 'sources.0.passages')->assertJsonPath('sources.0.passages.0.words.0.0', 'Read');
        $srt = $this->get($this->at("clips/$camera->ulid/words.srt"))->assertOk();
        self::assertStringContainsString("00:00:02,000 --> 00:00:03,534\nMARA: Read me the gauge.", $srt->getContent());
        $this->get($this->at("clips/$camera->ulid/words.txt"))->assertOk()->assertSee('Mara: Read me the gauge.');
    }

    public function test_a_word_is_corrected_and_taken_back_and_two_people_do_not_write_over_each_other(): void
    {
        $clip = $this->clip('T01', 'S', 8, 20);
        $this->say($clip, [[1, 'Reed me the gorge.', 'Mara']]);
        $passage = $this->passage($clip);
        $at = $this->at("clips/$clip->ulid/passages/$passage->ulid");
        $mara = $this->person();
        $tobias = $this->person(Role::Editor);
        $this->actingAs($mara)
            ->patchJson($at, ['from' => 0, 'was' => ['Reed'], 'text' => 'Read'])
            ->assertOk();
        $this->actingAs($tobias)
            ->patchJson($at, ['from' => 0, 'was' => ['Reed', 'me'], 'text' => 'Rede me'])
            ->assertStatus(409)
            ->assertJsonPath('context.fields.0.theirs', 'Read me');
        $this->patchJson($at, ['from' => 3, 'was' => ['gorge.'], 'text' => 'old gauge.'])->assertOk();
        self::assertSame('Read me the old gauge.', $this->text($clip));
        $word = $this->passage($clip)->words[4];
        self::assertSame(['gauge.', 'gorge.'], [$word[0], $word[4]]);
        self::assertGreaterThan($this->passage($clip)->words[3][1], $word[1]);
        // Each takes back their own; the first lies under the second in the same passage and stays, and is named.
        $this->actingAs($tobias)->postJson($this->at('undo'))->assertOk();
        self::assertSame('Read me the gorge.', $this->text($clip));
        $this->actingAs($mara)->postJson($this->at('undo'))->assertOk();
        self::assertSame('Reed me the gorge.', $this->text($clip));
        $history = $this->getJson($this->at("clips/$clip->ulid/words/history"))->assertOk()->json('steps');
        self::assertSame(
            ['Correct "gorge." to "old gauge."', 'Correct "Reed" to "Read"'],
            array_column(array_slice($history, 0, 2), 'label'),
        );
        self::assertSame([true, true, false], array_column($history, 'undone'));
        $this->patchJson($at, ['from' => 3, 'was' => ['gorge.'], 'text' => ''])->assertOk();
        self::assertSame('Reed me the', $this->text($clip));
        $this->as(Role::Reviewer)
            ->patchJson($at, ['from' => 0, 'was' => ['Reed'], 'text' => 'x'])
            ->assertForbidden();
    }

    public function test_passages_are_split_and_joined_and_speakers_named_everywhere(): void
    {
        $clip = $this->clip('T01', 'S', 8, 60);
        $this->say($clip, [[1, 'Is it oak? It is.', 'S1'], [10, 'Good then.', 'S1'], [20, 'Shut it.', 'S2']]);
        $first = $this->passage($clip);
        $this->as()
            ->postJson($this->at("clips/$clip->ulid/passages/$first->ulid/split"), ['at' => 3, 'was' => 'It'])
            ->assertCreated();
        self::assertSame('Is it oak? / It is. / Good then. / Shut it.', $this->text($clip));
        $this->putJson($this->at("clips/$clip->ulid/passages/{$this->passage($clip, 1)->ulid}/speaker"), [
            'was' => 'S1',
            'speaker' => 'Quill',
            'everywhere' => false,
        ])->assertOk();
        $this->putJson($this->at("clips/$clip->ulid/passages/$first->ulid/speaker"), [
            'was' => 'S1',
            'speaker' => 'Mara',
            'everywhere' => true,
        ])
            ->assertOk()
            ->assertJsonPath('changed', 2);
        self::assertSame(['Mara', 'Quill', 'Mara', 'S2'], Passage::query()->orderBy('start_ticks')->pluck('speaker')->all());
        $this->postJson($this->at("clips/$clip->ulid/passages/{$this->passage($clip, 2)->ulid}/merge"))->assertOk();
        self::assertSame('Is it oak? / It is. / Good then. Shut it.', $this->text($clip));
        $this->postJson($this->at("clips/$clip->ulid/passages/{$this->passage($clip, 2)->ulid}/merge"))->assertStatus(422);
        foreach (range(1, 4) as $n) {
            $this->postJson($this->at('undo'))->assertOk();
        }
        self::assertSame('Is it oak? It is. / Good then. / Shut it.', $this->text($clip));
        self::assertSame(['S1', 'S1', 'S2'], Passage::query()->orderBy('start_ticks')->pluck('speaker')->all());
    }

    public function test_words_that_are_found_anew_replace_the_old_ones_in_one_step(): void
    {
        $clip = $this->clip('T01', 'S', 8, 20);
        $this->say($clip, [[1, 'Reed me', null]]);
        $person = $this->person();
        app(KeepWords::class)($clip, $person, new Words([new Word('Read', 0, 9)], 'test', 'script'), 'recognised', 'en-us');
        self::assertSame('Read', $this->text($clip));
        $this->actingAs($person)->postJson($this->at('undo'))->assertOk();
        self::assertSame('Reed me', $this->text($clip));
    }

    /** Somebody corrects the first word of a clip. */
    private function correct(Clip $clip, string $was, string $text, ?User $who = null): void
    {
        $this->actingAs($who ?? $this->person())
            ->patchJson($this->at("clips/$clip->ulid/passages/{$this->passage($clip)->ulid}"), [
                'from' => 0,
                'was' => [$was],
                'text' => $text,
            ])
            ->assertOk();
    }

    public function test_corrected_words_are_only_replaced_where_that_was_asked_for(): void
    {
        $clip = $this->clip('T01', 'S', 8, 20);
        $this->say($clip, [[1, 'Reed me', null]]);
        $this->correct($clip, 'Reed', 'Read');
        $found = new Words([new Word('Red', 0, 9)], 'test', 'script');
        try {
            app(KeepWords::class)($clip, $this->person(), $found, 'recognised', 'en-us');
            self::fail('They were replaced.');
        } catch (Problem $problem) {
            self::assertSame(409, $problem->status);
        }
        self::assertSame('Read me', $this->text($clip));
        $brought = ['text' => "1\n00:00:01,000 --> 00:00:02,000\nRoad me\n", 'language' => 'en-us'];
        $this->as()->postJson($this->at("clips/$clip->ulid/words"), $brought)->assertStatus(409)->assertJsonPath('code', 'words.corrected');
        $this->postJson($this->at("clips/$clip->ulid/words"), $brought + ['again' => true])->assertCreated();
        self::assertSame('Road me', $this->text($clip));
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame('Read me', $this->text($clip));
    }

    public function test_words_that_come_in_while_somebody_works_do_not_stand_before_their_own_last_step(): void
    {
        $clip = $this->clip('T01', 'S', 8, 20);
        $person = $this->person();
        $this->actingAs($person);
        foreach (['First', 'Second'] as $name) {
            $this->postJson($this->at('cuts'), ['name' => $name])->assertCreated();
        }
        $this->postJson($this->at('undo'))->assertOk();
        app(KeepWords::class)($clip, $person, new Words([new Word('Read', 0, 9)], 'test', 'script'), 'recognised', 'en-us');
        $names = fn(): array => array_column($this->getJson($this->at('cuts'))->json('cuts'), 'name');
        $this->postJson($this->at('redo'))->assertOk();
        self::assertEqualsCanonicalizing(['First', 'Second'], $names());
        $this->postJson($this->at('undo'))->assertOk();
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame([], $names());
        self::assertSame('Read', $this->text($clip));
        self::assertSame(
            ['Find the words of T01'],
            array_column($this->getJson($this->at("clips/$clip->ulid/words/history"))->json('steps'), 'label'),
        );
    }

    public function test_a_find_that_a_colleague_has_worked_on_is_not_taken_back_and_those_before_it_are(): void
    {
        $clip = $this->clip('T01', 'S', 8, 20);
        $this->say($clip, [[1, 'Reed me', null]]);
        $person = $this->person();
        $this->actingAs($person)
            ->postJson($this->at('cuts'), ['name' => 'First'])
            ->assertCreated();
        app(KeepWords::class)(
            $clip,
            $person,
            new Words([new Word('Red', 0, 9), new Word('me', 9, 18)], 'test', 'script'),
            'recognised',
            'en-us',
        );
        $this->correct($clip, 'Red', 'Read');
        $this->actingAs($person)->postJson($this->at('undo'))->assertStatus(409);
        self::assertSame('Read me', $this->text($clip), 'neither the old words nor both');
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame([], $this->getJson($this->at('cuts'))->json('cuts'));
        self::assertSame('Read me', $this->text($clip));
    }

    public function test_each_take_of_one_recording_has_its_own_call_for_action_and_a_correction_counts(): void
    {
        $first = $this->take('7', 1);
        $second = $this->take('7', 2);
        $sound = $this->clip('T01', 'S', 8, 60);
        foreach ([[$first, 0, 30], [$second, 30, 60]] as [$take, $from, $to]) {
            TakePart::query()->create([
                'take_id' => $take->id,
                'clip_id' => $sound->id,
                'said_by' => 'name',
                'in_ticks' => $from * self::S,
                'out_ticks' => $to * self::S,
            ]);
        }
        $this->place($sound, 8);
        $cameras = [$this->clip('A001C001', 'A', 10, 20, $first), $this->clip('A001C002', 'A', 40, 20, $second)];
        $this->place($cameras[0], 10);
        $this->place($cameras[1], 40);
        $this->say($sound, [[5, 'Action', null], [35, 'Auction', null]]);
        $seconds = static fn(): array => array_map(
            static fn(array $clips): array => array_map(static fn(int $ticks): int => intdiv($ticks, self::S), $clips),
            ActionCalls::of([$first->id, $second->id]),
        );
        self::assertSame([$first->id => [$cameras[0]->id => 3]], $seconds());
        $at = $this->at("clips/$sound->ulid/passages/{$this->passage($sound, 1)->ulid}");
        $this->as()
            ->patchJson($at, ['from' => 0, 'was' => ['Auction'], 'text' => 'Action'])
            ->assertOk();
        self::assertSame([$cameras[1]->id => 3], $seconds()[$second->id]);
        $this->postJson($this->at('undo'))->assertOk();
        self::assertArrayNotHasKey($second->id, $seconds());
        $this->correct($sound, 'Action', 'Faction');
        self::assertSame([], $seconds());
    }

    public function test_a_picture_has_only_the_sound_under_it(): void
    {
        $camera = $this->clip('A001C001', 'A', 10, 10);
        $sound = $this->clip('T01', 'S', 8, 20);
        $other = $this->clip('T09', 'S', 400, 20);
        $this->place($camera, 10);
        $this->place($sound, 8);
        $this->place($other, 400);
        $this->say($sound, [[4, 'Read me the gauge.', null]]);
        $this->catalogueSilence($sound, 20);
        $this->catalogueSilence($other, 20);
        $this->as(Role::Reviewer)
            ->getJson($this->at("clips/$camera->ulid/words/around?sound=$other->ulid&start=0&end=9"))
            ->assertNotFound();
        $this->getJson($this->at("clips/$camera->ulid/pauses?sound=$other->ulid"))->assertNotFound();
        $around = $this->getJson($this->at("clips/$camera->ulid/words/around?sound=$sound->ulid&start=0&end=" . self::S))->assertOk();
        self::assertGreaterThanOrEqual(0, $around->json('in_ticks'));
    }

    public function test_text_with_times_is_taken_in_with_what_could_not_be_read(): void
    {
        $clip = $this->clip('T01', 'S', 8, 20);
        $srt = "1\n00:00:01,000 --> 00:00:02,000\nMARA: Shut it now.\n\n2\n00:00:09,000 --> 00:00:04,000\nno\n";
        $this->as()
            ->postJson($this->at("clips/$clip->ulid/words"), ['text' => $srt, 'language' => 'en-us'])
            ->assertCreated()
            ->assertJsonPath('words', 3)
            ->assertJsonPath('problems.0', 'Line 6: This cue ends before it begins.');
        self::assertSame('Mara', $this->passage($clip)->speaker);
        self::assertSame(self::S, $this->passage($clip)->start_ticks);
        $this->postJson($this->at("clips/$clip->ulid/words"), ['text' => " \n", 'language' => 'en-us'])->assertStatus(422);
        $this->postJson($this->at("clips/$clip->ulid/words"), ['text' => 'Words without times', 'language' => 'en-us'])->assertStatus(422);
    }

    public function test_what_is_chosen_grows_a_cut_in_one_step(): void
    {
        $clip = $this->clip('A001C001', 'A', 10, 10);
        $cut = StoredSequence::query()
            ->where(
                'ulid',
                $this->as()
                    ->postJson($this->at('cuts'), ['name' => 'First'])
                    ->assertCreated()
                    ->json('ulid'),
            )
            ->sole();
        $piece = static fn(int $from, int $to): array => [
            'clip' => $clip->ulid,
            'in_ticks' => $from * self::S,
            'out_ticks' => $to * self::S,
        ];
        $add = fn(array $pieces, ?int $at) => $this->postJson($this->at("cuts/$cut->ulid/pieces"), [
            'pieces' => $pieces,
            'at_ticks' => $at,
            'label' => 'Add',
        ]);
        $add([$piece(1, 3)], null)
            ->assertOk()
            ->assertJsonPath('end_ticks', 2 * self::S);
        $add([$piece(4, 5), $piece(6, 7)], self::S)
            ->assertOk()
            ->assertJsonPath('end_ticks', 3 * self::S);
        $items = fn(): array => array_map(
            static fn(array $item): array => [intdiv($item['source_start_ticks'], self::S), intdiv($item['duration_ticks'], self::S)],
            $this->getJson($this->at("sequences/$cut->ulid"))->assertOk()->json('value.tracks.0.items'),
        );
        self::assertSame([[1, 1], [4, 1], [6, 1], [2, 1]], $items());
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame([[1, 2]], $items());
        $add([$piece(8, 12)], null)->assertStatus(422);
        self::assertSame(['First'], array_column($this->getJson($this->at('cuts'))->json('cuts'), 'name'));
    }

    public function test_a_slate_that_is_called_is_asked_about_only_where_the_log_has_another_or_none(): void
    {
        $logged = $this->clip('T01', 'S', 8, 20, $this->take('12A', 2));
        $wrong = $this->clip('T02', 'S', 40, 20, $this->take('12A', 3));
        $open = $this->clip('T03', 'S', 80, 20);
        $unsure = $this->clip('T04', 'S', 120, 20);
        foreach ([$logged, $wrong] as $clip) {
            $this->say($clip, [[1, 'scene twelve alpha take two', null]]);
        }
        $this->say($open, [[1, 'scene seven take one', null]]);
        $this->say($unsure, [[1, 'scene seven take two', null]], 0.4);
        $points = fn(): array => array_values(
            array_filter(
                $this->as()->getJson($this->onDay('sheet'))->assertOk()->json('points'),
                static fn(array $one): bool => str_starts_with($one['key'], 'called.'),
            ),
        );
        self::assertSame(['T02 calls 12A/2 and is logged as 12A/3', 'T03 calls 7/1'], array_column($points(), 'title'));
        $this->postJson($this->onDay('points'), ['key' => $points()[1]['key'], 'fix' => 'take'])->assertOk();
        self::assertSame('7/1', $open->refresh()->slates());
        self::assertSame(['T02 calls 12A/2 and is logged as 12A/3'], array_column($points(), 'title'));
    }

    public function test_a_scene_s_lines_are_joined_to_their_reads(): void
    {
        Scene::query()->create([
            'production_id' => $this->production->id,
            'name' => '7',
            'heading' => 'EXT. SLUICE',
            'script_order' => 0,
            'text' => "MARA\nRead me the gauge.\n\nQUILL\nOne metre forty.\n\nMARA\nThen shut the gate.\n",
        ]);
        $first = $this->take('7', 1);
        $second = $this->take('7', 2, ['status' => 'circled']);
        $third = $this->take('7', 3);
        $this->say($this->clip('T01', 'S', 8, 30, $first), [
            [1, 'read me the gauge', null],
            [5, 'read me the gauge', null],
            [9, 'one metre forty', null],
        ]);
        $this->say($this->clip('T02', 'S', 50, 30, $second), [[1, 'read me the gauge', null], [9, 'lovely weather', null]]);
        $this->clip('T03', 'S', 90, 30, $third);
        $answer = $this->as(Role::Reviewer)->getJson($this->at('script-reads?scene=7'))->assertOk()->json();
        self::assertSame([3, 1, 0], array_map(static fn(array $line): int => count($line['reads']), $answer['lines']));
        self::assertSame(['7/1', '7/1', '7/2'], array_column($answer['lines'][0]['reads'], 'label'));
        self::assertSame(['lovely weather'], array_column($answer['unwritten'], 'text'));
        self::assertSame([3, ['7/3']], [$answer['takes'], $answer['unheard']]);
        $this->getJson($this->onDay('line-sums'))
            ->assertOk()
            ->assertJsonPath('scenes.7', ['lines' => 3, 'said' => 2, 'reads' => 4]);
    }
}
