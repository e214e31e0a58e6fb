<?php

declare(strict_types=1);

namespace Tests\App\Assembly;

use App\Models\Clip;
use App\Models\Role;
use App\Models\Scene;
use App\Models\StoredSequence;
use App\Models\Take;
use Cartella\Core\Time\Ticks;
use Tests\App\TestCase;
use Tests\App\Words\SaysWords;

/** Cuts that grow out of takes and reads: what lies in them, on which tracks, and what else could stand there. */
final class CutTest extends TestCase
{
    use SaysWords;

    private const S = Ticks::PER_SECOND;

    private const CHANNELS = [['index' => 1, 'name' => 'boom'], ['index' => 2, 'name' => 'lav Mara']];

    /**
     * A take of two cameras and the recorder, at some second: A from 1 s of the recording on for 18 s, B from 3 s on for 8 s.
     *
     * @param  array<string, mixed>  $more
     * @return array{take: Take, A: Clip, B: Clip, S: Clip}
     */
    private function shot(int $number, float $at, array $more = []): array
    {
        $take = $this->take('7', $number, $more);
        $made = ['take' => $take];
        foreach (['A' => [1, 18], 'B' => [3, 8], 'S' => [0, 20]] as $letter => [$later, $seconds]) {
            $made[$letter] = $this->clip("{$letter}00$number", $letter, $at + $later, $seconds, $take, [
                'proxied_at' => now(),
                'channels' => $letter === 'S' ? self::CHANNELS : [],
            ]);
            $this->place($made[$letter], $at + $later);
        }

        return $made;
    }

    private function script(): void
    {
        Scene::query()->create([
            'production_id' => $this->production->id,
            'name' => '7',
            'heading' => 'EXT. SLUICE',
            'script_order' => 0,
            'text' => "MARA\nRead me the gauge.\n\nQUILL\nOne metre forty.\n",
        ]);
    }

    private function made(string $name = 'First'): StoredSequence
    {
        $ulid = $this->as()
            ->postJson($this->at('cuts'), ['name' => $name])
            ->assertCreated()
            ->json('ulid');

        return StoredSequence::query()->where('ulid', $ulid)->sole();
    }

    /** @return array<string, string> `A001 0-5 @2, …` in seconds, by the names of the tracks on which something lies */
    private function told(string $cut): array
    {
        $told = [];
        foreach ($this->getJson($this->at("sequences/$cut"))->assertOk()->json('value.tracks') as $track) {
            foreach ($track['items'] as $item) {
                $told[$track['name']][] = sprintf(
                    '%s %s-%s @%s',
                    $item['source']['name'],
                    round($item['record_start_ticks'] / self::S, 2),
                    round(($item['record_start_ticks'] + $item['duration_ticks']) / self::S, 2),
                    round($item['source_start_ticks'] / self::S, 2),
                );
            }
        }

        return array_map(static fn(array $items): string => implode(', ', $items), $told);
    }

    /** @param  array<string, mixed>  $more */
    private function bring(StoredSequence $cut, Clip $clip, float $in, float $out, array $more = []): \Illuminate\Testing\TestResponse
    {
        $piece = array_intersect_key($more, ['take' => 1, 'angle' => 1, 'character' => 1]);

        return $this->postJson($this->at("cuts/$cut->ulid/pieces"), [
            'pieces' => [['clip' => $clip->ulid, 'in_ticks' => (int) ($in * self::S), 'out_ticks' => (int) ($out * self::S)] + $piece],
            'label' => 'Put',
            ...['at_ticks' => null],
            ...array_diff_key($more, $piece),
        ]);
    }

    public function test_a_new_cut_has_the_tracks_of_the_plan_and_a_stretch_brings_its_sound_along(): void
    {
        $this->script();
        $shot = $this->shot(1, 100);
        $cut = $this->made();
        $names = array_column($this->getJson($this->at("sequences/$cut->ulid"))->json('value.tracks'), 'name');
        self::assertSame(
            ['Picture', 'Stand-ins', 'Titles', 'Dialogue', 'Mara', 'Quill', 'Voice-over', 'Effects', 'Ambience', 'Music'],
            $names,
        );
        $this->bring($cut, $shot['A'], 2, 6)
            ->assertOk()
            ->assertJsonPath('end_ticks', 4 * self::S)
            ->assertJsonPath('step.number', 1);
        self::assertSame(['Picture' => 'A001 0-4 @2', 'Dialogue' => 'S001 0-4 @3'], $this->told($cut->ulid));
        // A recording shows the camera that saw it, and the character's own channel goes on her track.
        $this->bring($cut, $shot['S'], 5, 7, ['angle' => 'B', 'character' => 'MARA']);
        self::assertSame(
            ['Picture' => 'A001 0-4 @2, B001 4-6 @2', 'Dialogue' => 'S001 0-4 @3', 'Mara' => 'S001 4-6 @5'],
            $this->told($cut->ulid),
        );
        $mara = $this->getJson($this->at("sequences/$cut->ulid/playlist"))->json('sounds.1');
        self::assertSame([[['index' => 2, 'gain_db' => 0]], 4 * self::S], [$mara['channels'], $mara['at_ticks']]);
        // Put in, everything behind moves; laid over, nothing does.
        $this->bring($cut, $shot['A'], 10, 11, ['how' => 'insert', 'at_ticks' => 4 * self::S]);
        self::assertSame('A001 0-4 @2, A001 4-5 @10, B001 5-7 @2', $this->told($cut->ulid)['Picture']);
        $this->bring($cut, $shot['A'], 8, 9, ['how' => 'lay_over', 'at_ticks' => self::S, 'takes' => 'picture']);
        self::assertSame('A001 0-1 @2, A001 1-2 @8, A001 2-4 @4, A001 4-5 @10, B001 5-7 @2', $this->told($cut->ulid)['Picture']);
        self::assertSame('S001 0-4 @3, S001 4-5 @11', $this->told($cut->ulid)['Dialogue']);
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame('A001 0-4 @2, A001 4-5 @10, B001 5-7 @2', $this->told($cut->ulid)['Picture']);
    }

    public function test_a_clip_without_sound_a_clip_without_picture_and_a_locked_track(): void
    {
        $mute = $this->clip('A009', 'A', 500, 10);
        $alone = $this->clip('S009', 'S', 600, 10, null, ['channels' => self::CHANNELS]);
        $cut = $this->made();
        $this->bring($cut, $mute, 0, 2)->assertOk();
        $this->bring($cut, $alone, 0, 3)->assertOk();
        self::assertSame(['Picture' => 'A009 0-2 @0', 'Dialogue' => 'S009 2-5 @0'], $this->told($cut->ulid));
        $this->bring($cut, $mute, 0, 2, ['takes' => 'sound'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'cut.nothing');
        $this->postJson($this->at("sequences/$cut->ulid/edit"), [
            'step' => 2,
            'label' => 'Lock',
            'operations' => array_map(static fn(int $track): array => ['op' => 'set_track', 'track' => $track, 'locked' => true], [
                0,
                1,
                2,
            ]),
        ])->assertOk();
        $this->bring($cut, $mute, 0, 2)->assertStatus(422)->assertJsonPath('code', 'cut.track');
        $this->postJson($this->at('undo'))->assertOk();
        $this->bring($cut, $mute, 0, 2)->assertOk();
    }

    public function test_another_s_step_at_the_same_place_is_told_and_elsewhere_carried_over(): void
    {
        $shot = $this->shot(1, 100);
        $cut = $this->made();
        $this->bring($cut, $shot['A'], 0, 4);
        $this->bring($cut, $shot['A'], 5, 9);
        $seen = 2;
        $other = $this->person();
        $other->update(['name' => 'Ben']);
        $split = fn(int $second): array => [
            'step' => $seen,
            'label' => 'Split',
            'operations' => [['op' => 'split', 'track' => 0, 'at_ticks' => $second * self::S]],
        ];
        $this->actingAs($other)->postJson($this->at("sequences/$cut->ulid/edit"), $split(6))->assertOk();
        $this->as()->postJson($this->at("sequences/$cut->ulid/edit"), $split(5))->assertStatus(409)->assertJsonPath('code', 'cut.conflict');
        $this->postJson($this->at("sequences/$cut->ulid/edit"), $split(2))->assertOk();
        self::assertSame('A001 0-2 @0, A001 2-4 @2, A001 4-6 @5, A001 6-8 @7', $this->told($cut->ulid)['Picture']);
        $steps = $this->getJson($this->at("sequences/$cut->ulid/steps?after=2"))->assertOk()->json('steps');
        self::assertSame([3, 4], array_column($steps, 'number'));
        self::assertSame(
            ['Split', 'Split', 'Put', 'Put'],
            array_column($this->getJson($this->at("sequences/$cut->ulid/history"))->json('steps'), 'label'),
        );
        self::assertSame('Ben', $this->getJson($this->at("sequences/$cut->ulid/history"))->json('steps.1.by'));
    }

    public function test_versions_are_compared_and_taken_again(): void
    {
        $shot = $this->shot(1, 100);
        $cut = $this->made();
        $this->bring($cut, $shot['A'], 0, 4);
        $version = $this->postJson($this->at("sequences/$cut->ulid/versions"), ['name' => 'for Tom'])
            ->assertCreated()
            ->json('ulid');
        $this->bring($cut, $shot['B'], 0, 2);
        $since = $this->getJson($this->at("sequences/$cut->ulid/versions/$version/since"))->assertOk();
        self::assertSame(['new', 'new'], array_column($since->json('changes'), 'kind'));
        self::assertCount(1, $this->getJson($this->at("sequences/$cut->ulid/versions/$version/playlist"))->json('pictures'));
        $this->postJson($this->at("sequences/$cut->ulid/versions/$version"))->assertOk();
        self::assertSame('A001 0-4 @0', $this->told($cut->ulid)['Picture']);
        $this->patchJson($this->at("cuts/$cut->ulid"), ['name' => 'Opening'])->assertOk();
        self::assertSame('Opening', $this->getJson($this->at('cuts'))->json('cuts.0.name'));
    }

    public function test_what_lies_beneath_and_what_could_stand_there(): void
    {
        $this->script();
        $first = $this->shot(1, 100);
        $second = $this->shot(2, 200, ['status' => 'circled']);
        $third = $this->shot(3, 300);
        $this->say($first['S'], [[6, 'read me the gauge', null], [12, 'one metre forty', null]]);
        $this->say($second['S'], [[9, 'read me the gauge', null]]);
        $cut = $this->made();
        $this->bring($cut, $first['A'], 4, 8);
        $beneath = $this->getJson($this->at("sequences/$cut->ulid/beneath?track=0&index=0"))->assertOk();
        self::assertSame(
            ['7/1', 4 * self::S, 10 * self::S],
            [$beneath->json('take.label'), $beneath->json('before_ticks'), $beneath->json('after_ticks')],
        );
        self::assertSame(
            [
                // B saw it all; it began two seconds after A.
                ['7/1 B', 'clock', 2 * self::S],
                // The line is heard 3 s later in the recording of the second take.
                ['7/2 A', 'words', 7 * self::S],
                ['7/3 A', 'start', 4 * self::S],
            ],
            array_map(static fn(array $one): array => [$one['label'], $one['how'], $one['in_ticks']], $beneath->json('instead')),
        );
        self::assertSame($third['A']->ulid, $beneath->json('instead.2.clip'));
        $this->getJson($this->at("sequences/$cut->ulid/beneath?track=0&index=7"))->assertOk()->assertJsonPath('name', null);
        self::assertSame(['A', 'S'], array_column($this->getJson($this->at("sequences/$cut->ulid/sources"))->json('clips'), 'device'));
    }

    public function test_a_whole_take_has_whole_takes_instead_and_what_follows_moves(): void
    {
        $first = $this->shot(1, 100);
        // One recording of the camera over two takes: the second of them is shorter.
        $this->clip('A002', 'A', 200, 30, null, ['proxied_at' => now()]);
        $long = Clip::query()->where('name', 'A002')->sole();
        $this->place($long, 200);
        foreach ([2 => [0, 22], 3 => [22, 30]] as $number => [$from, $to]) {
            $long->parts()->create([
                'take_id' => $this->take('7', $number)->id,
                'in_ticks' => $from * self::S,
                'out_ticks' => $to * self::S,
                'said_by' => 'name',
            ]);
        }
        $cut = $this->made();
        $this->bring($cut, $first['A'], 0, 18);
        $this->bring($cut, $first['B'], 0, 2);
        $instead = $this->getJson($this->at("sequences/$cut->ulid/beneath?track=0&index=0"))->json('instead');
        self::assertSame(
            [['7/2 A', 'whole', 0, 22], ['7/3 A', 'whole', 22, 30]],
            array_map(
                static fn(array $one): array => [
                    $one['label'],
                    $one['how'],
                    intdiv($one['in_ticks'], self::S),
                    intdiv($one['out_ticks'], self::S),
                ],
                $instead,
            ),
        );
        $place = ['how' => 'instead', 'at_ticks' => 0, 'until_ticks' => 18 * self::S];
        $this->bring($cut, $long, 0, 22, ['take' => $instead[0]['take']['ulid']] + $place)->assertOk();
        self::assertSame(['Picture' => 'A002 0-22 @0, B001 22-24 @0', 'Dialogue' => 'S001 22-24 @3'], $this->told($cut->ulid));
        $this->bring($cut, $long, 22, 30, ['until_ticks' => 22 * self::S] + $place)->assertOk();
        self::assertSame(['Picture' => 'A002 0-8 @22, B001 8-10 @0', 'Dialogue' => 'S001 8-10 @3'], $this->told($cut->ulid));
        $this->postJson($this->at('undo'))->assertOk();
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame('A001 0-18 @0, B001 18-20 @0', $this->told($cut->ulid)['Picture']);
    }

    public function test_a_still_is_shown_for_as_long_as_it_is_asked_for(): void
    {
        $card = $this->clip('title card.png', 'A', 0, 0, null, [
            ...['kind' => 'still', 'device_id' => null, 'duration_ticks' => null, 'start_ticks' => null, 'channels' => null],
            ...['rate_num' => null, 'rate_den' => null, 'frames' => null, 'import_kind' => 'graphics', 'proxied_at' => now()],
        ]);
        $cut = $this->made();
        $this->bring($cut, $card, 0, 5)->assertOk();
        $this->bring($cut, $card, 0, 61)->assertStatus(422)->assertJsonPath('code', 'cut.piece');
        self::assertSame(['Picture' => 'title card.png 0-5 @0'], $this->told($cut->ulid));
        $trim = static fn(int $seconds): array => [
            'step' => 1,
            'label' => 'Longer',
            'operations' => [
                ['op' => 'trim', 'track' => 0, 'index' => 0, 'edge' => 'tail', 'by_ticks' => $seconds * self::S, 'ripple' => true],
            ],
        ];
        $this->postJson($this->at("sequences/$cut->ulid/edit"), $trim(56))->assertStatus(422);
        $this->postJson($this->at("sequences/$cut->ulid/edit"), $trim(55))->assertOk();
        $piece = $this->getJson($this->at("sequences/$cut->ulid/playlist"))->assertOk()->json('pictures.0');
        self::assertSame([60 * self::S, 60 * self::S], [$piece['duration_ticks'], $piece['clip_ticks']]);
        self::assertSame('still', $this->getJson($this->at("sequences/$cut->ulid/sources"))->json('clips.0.kind'));
    }

    public function test_the_first_picture_gives_a_cut_its_rate_and_size_and_other_rates_are_told(): void
    {
        $usual = $this->clip('A001', 'A', 100, 10);
        $other = $this->clip('B001', 'B', 200, 10, null, [
            ...['rate_num' => 24, 'rate_den' => 1, 'frames' => 240],
            'facts' => ['width' => 1998, 'height' => 1080],
        ]);
        $cut = $this->made();
        $this->bring($cut, $other, 0, 4)->assertOk()->assertJsonPath('rate', '24')->assertJsonPath('other_rates', []);
        $this->bring($cut, $usual, 0, 4)
            ->assertOk()
            ->assertJsonPath('rate', '24')
            ->assertJsonPath('other_rates', ['25']);
        $value = $this->getJson($this->at("sequences/$cut->ulid"))->assertOk()->json('value');
        self::assertSame(['24', ['width' => 1998, 'height' => 1080]], [$value['rate'], $value['metadata']['picture_size']]);
        self::assertSame('B001 0-4 @0, A001 4-8 @0', $this->told($cut->ulid)['Picture']);
        // Taken back to nothing, the next first picture says it again.
        $this->postJson($this->at('undo'))->assertOk();
        $this->postJson($this->at('undo'))->assertOk();
        $this->bring($cut, $usual, 0, 4)->assertOk()->assertJsonPath('rate', '25');
        self::assertSame('A001 0-4 @0', $this->told($cut->ulid)['Picture']);
    }

    public function test_string_outs_of_circled_takes_of_a_line_and_of_a_keyword(): void
    {
        $this->script();
        $later = $this->shot(2, 200, ['status' => 'circled', 'keywords' => 'gull, sluice']);
        $first = $this->shot(1, 100, ['status' => 'circled']);
        $this->shot(3, 300);
        $this->take('7', 9, ['status' => 'circled']);
        $this->say($first['S'], [[6, 'read me the gauge', null]]);
        $this->say($later['S'], [[9, 'read me the gauge', null]]);
        $answer = $this->as()
            ->postJson($this->at('string-outs'), ['of' => 'circled', 'scene' => '7'])
            ->assertCreated();
        self::assertSame(['7/9'], $answer->json('left'));
        self::assertSame('A001 0-18 @0, A002 18-36 @0', $this->told($answer->json('ulid'))['Picture']);
        $line = $this->postJson($this->at('string-outs'), ['of' => 'line', 'scene' => '7', 'line' => 0])->assertCreated();
        $told = $this->told($line->json('ulid'));
        self::assertSame(['Picture', 'Mara'], array_keys($told));
        self::assertMatchesRegularExpression('/^A001 0-[\d.]+ @5, A002 [\d.]+-[\d.]+ @8$/', $told['Picture']);
        $keyword = $this->postJson($this->at('string-outs'), ['of' => 'keyword', 'keyword' => 'gull'])->assertCreated();
        self::assertSame('A002 0-18 @0', $this->told($keyword->json('ulid'))['Picture']);
        foreach (
            [['of' => 'line', 'scene' => '7', 'line' => 1], ['of' => 'keyword', 'keyword' => '%'], ['of' => 'circled', 'scene' => '99']]
            as $none
        ) {
            $this->postJson($this->at('string-outs'), $none)->assertStatus(422);
        }
        $this->postJson($this->at('undo'))->assertOk();
        self::assertCount(2, $this->getJson($this->at('cuts'))->json('cuts'));
    }

    public function test_a_title_covers_the_picture_and_levels_are_played(): void
    {
        $shot = $this->shot(1, 100);
        $cut = $this->made();
        $this->bring($cut, $shot['A'], 0, 8);
        $this->bring($cut, $shot['B'], 0, 2, ['how' => 'lay_over', 'at_ticks' => 3 * self::S, 'takes' => 'picture', 'track' => 2]);
        $this->postJson($this->at("sequences/$cut->ulid/edit"), [
            'step' => 2,
            'label' => 'Softer',
            'operations' => [
                ['op' => 'level', 'track' => 3, 'index' => 0, 'gain_millibels' => -600, 'fade_in_ticks' => self::S, 'fade_out_ticks' => 0],
            ],
        ])->assertOk();
        $playlist = $this->getJson($this->at("sequences/$cut->ulid/playlist"))->assertOk();
        self::assertSame(
            [[0, 3, 0], [3, 2, 0], [5, 3, 5]],
            array_map(
                static fn(array $one): array => array_map(static fn(string $field): int => intdiv($one[$field], self::S), [
                    'at_ticks',
                    'duration_ticks',
                    'in_ticks',
                ]),
                $playlist->json('pictures'),
            ),
        );
        self::assertSame([-6, self::S], [$playlist->json('sounds.0.gain_db'), $playlist->json('sounds.0.fade_in_ticks')]);
    }

    public function test_the_plan_of_tracks_is_the_productions_own_and_a_reviewer_only_looks(): void
    {
        $tracks = [
            ['kind' => 'picture', 'name' => 'Bild', 'role' => 'picture'],
            ['kind' => 'sound', 'name' => 'Ton', 'role' => 'dialogue'],
        ];
        $this->as()
            ->putJson($this->at('track-plan'), ['tracks' => $tracks])
            ->assertOk();
        $cut = $this->made();
        self::assertSame(['Bild', 'Ton'], array_column($this->getJson($this->at("sequences/$cut->ulid"))->json('value.tracks'), 'name'));
        $this->putJson($this->at('track-plan'), ['tracks' => []])->assertOk();
        self::assertFalse($this->getJson($this->at('track-plan'))->json('is_own'));
        $this->as(Role::Reviewer)
            ->putJson($this->at('track-plan'), ['tracks' => $tracks])
            ->assertForbidden();
        $this->postJson($this->at('string-outs'), ['of' => 'circled'])->assertForbidden();
        $this->getJson($this->at("sequences/$cut->ulid"))->assertOk();
    }
}
