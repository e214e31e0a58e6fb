<?php

declare(strict_types=1);

namespace Tests\App\Words;

use App\Domain\Words\KeepWords;
use App\Models\Clip;
use App\Models\Passage;
use App\Models\Role;
use App\Models\Scene;
use App\Models\StoredSequence;
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
        $passage = $this->passage($clip);
        $this->as()
            ->patchJson($this->at("clips/$clip->ulid/passages/$passage->ulid"), ['from' => 0, 'was' => ['Reed'], 'text' => 'Read'])
            ->assertOk();
        self::assertTrue(KeepWords::isCorrected($clip));
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
