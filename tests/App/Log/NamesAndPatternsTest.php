<?php

declare(strict_types=1);

namespace Tests\App\Log;

use App\Models\Clip;
use App\Models\Scene;
use App\Models\Subclip;
use App\Models\Take;
use App\Models\TakePart;
use Illuminate\Http\UploadedFile;
use Tests\App\TestCase;

final class NamesAndPatternsTest extends TestCase
{
    public function test_picture_and_sound_are_named_alike_and_keep_the_name_they_came_with(): void
    {
        $take = $this->take('3A', 2);
        $clips = [$this->clip('A001C005', 'A', 0, take: $take), $this->clip('3A-T02', 'S', 0, take: $take)];
        $body = ['what' => 'clips', 'ulids' => array_column($clips, 'ulid'), 'pattern' => '{setup}-{take:2} {device}'];
        $this->as()
            ->postJson($this->at('names/preview'), $body)
            ->assertOk()
            ->assertJsonPath('names.0', [
                'ulid' => $clips[0]->ulid,
                'original' => 'A001C005',
                'was' => 'A001C005',
                'name' => '3A-02 A',
                'problems' => [],
            ]);
        $this->postJson($this->at('names'), $body)->assertJsonPath('changed', 2);
        $sheet = $this->getJson($this->onDay('log'));
        self::assertSame(
            [['3A-02 A', 'A001C005'], ['3A-02 S', '3A-T02']],
            array_map(static fn(array $clip): array => [$clip['name'], $clip['file']], $sheet->json('takes.0.clips')),
        );
        foreach (['A001C005', '3A-02 A'] as $asked) {
            $this->getJson($this->at('search?q=' . rawurlencode($asked)))->assertJsonPath('hits.0.ulid', $clips[0]->ulid);
        }
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Name 2 clips');
        self::assertSame([null, null], Clip::query()->pluck('label')->all());
    }

    public function test_names_that_collide_or_lack_a_field_are_shown_and_not_given(): void
    {
        $take = $this->take('3A', 2);
        $ulids = [
            $this->clip('A001C005', 'A', 0, take: $take)->ulid,
            $this->clip('A001C006', 'A', 10, take: $take)->ulid,
            $this->clip('A001C007', 'A', 20)->ulid,
        ];
        $body = ['what' => 'clips', 'ulids' => $ulids, 'pattern' => '{setup}-{take}'];
        $problems = array_column($this->as()->postJson($this->at('names/preview'), $body)->json('names'), 'problems');
        self::assertSame(
            ['2 of the selection would have this name', '2 of the selection would have this name', 'setup and take are empty'],
            array_merge(...$problems),
        );
        $this->postJson($this->at('names'), $body)->assertStatus(422)->assertJsonPath('code', 'names.problems');
        self::assertSame(0, Clip::query()->whereNotNull('label')->count());
        $this->postJson(
            $this->at('names'),
            ['pattern' => '{setup}-{take}[ {n}]'] + ['what' => 'clips', 'ulids' => array_slice($ulids, 0, 2)],
        )->assertOk();
        self::assertSame(['3A-2 1', '3A-2 2', null], Clip::query()->orderBy('id')->pluck('label')->all());
    }

    public function test_a_whole_day_of_any_size_is_named_in_one_step(): void
    {
        $take = $this->take('3A', 1);
        $rows = [];
        $facts = ['facts' => '[]', 'channels' => '[]', 'problems' => '[]'];
        foreach (range(1, 2400) as $n) {
            $rows[] = $facts + [
                'ulid' => sprintf('01KZZZZZZZZZZZZZZZZZZZ%04d', $n),
                'production_id' => $this->production->id,
                'shoot_day_id' => $this->day->id,
                'kind' => 'picture',
                'name' => "C$n",
                'path' => "C$n.mov",
                'path_hash' => md5("C$n.mov"),
                'start_ticks' => $n,
                'duration_ticks' => 1,
            ];
        }
        foreach (array_chunk($rows, 600) as $piece) {
            Clip::query()->insert($piece);
        }
        $parts = Clip::query()
            ->pluck('id')
            ->map(static fn(int $id): array => ['clip_id' => $id, 'take_id' => $take->id, 'said_by' => 'person']);
        foreach ($parts->chunk(600) as $piece) {
            TakePart::query()->insert($piece->all());
        }
        $body = ['what' => 'clips', 'day' => $this->day->ulid, 'pattern' => '{setup} {n:4}'];
        $preview = $this->as()->postJson($this->at('names/preview'), $body)->assertOk();
        self::assertSame(
            [2400, 2400, 0, 400, '3A 0001'],
            [
                $preview->json('total'),
                $preview->json('changes'),
                $preview->json('bad'),
                count($preview->json('names')),
                $preview->json('names.0.name'),
            ],
        );
        $this->postJson($this->at('names'), $body)->assertJsonPath('changed', 2400);
        self::assertSame('3A 2400', Clip::query()->where('name', 'C2400')->value('label'));
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Name 2400 clips');
        self::assertSame(0, Clip::query()->whereNotNull('label')->count());
    }

    public function test_a_day_of_another_production_is_not_named(): void
    {
        $other = \App\Models\Production::query()->create(['name' => 'Other', 'rate_num' => 25, 'rate_den' => 1]);
        $day = $other->days()->create(['number' => 1, 'date' => '2026-10-05']);
        $this->as()
            ->postJson($this->at('names'), ['what' => 'clips', 'day' => $day->ulid, 'pattern' => '{setup}'])
            ->assertNotFound();
    }

    public function test_takes_and_subclips_are_named_too(): void
    {
        $take = $this->take('3A', 2, ['size' => 'Wide']);
        $subclip = Subclip::query()->create([
            'clip_id' => $this->clip('A001C005', 'A', 0, take: $take)->id,
            'name' => 'new',
            'in_ticks' => 0,
            'out_ticks' => 10,
        ]);
        $this->as()
            ->postJson($this->at('names'), ['what' => 'takes', 'ulids' => [$take->ulid], 'pattern' => '{setup}-{take:2} {size}'])
            ->assertOk();
        $this->postJson($this->at('names'), [
            'what' => 'subclips',
            'ulids' => [$subclip->ulid],
            'pattern' => '{setup} part {n}',
        ])->assertOk();
        self::assertSame(['3A-02 Wide', '3A part 1'], [$take->refresh()->name, $subclip->refresh()->name]);
    }

    public function test_slate_patterns_are_tried_on_the_days_names_before_they_are_kept(): void
    {
        $this->clip('LW_12A_T03', 'S', 0);
        $this->as()->getJson($this->onDay('log/read'))->assertJsonPath('clips.0.slate', null);
        $was = $this->getJson($this->onDay('log/read'))->json('patterns');
        $now = ['LW_{setup}_T{take}', ...$was];
        $this->postJson($this->onDay('log/read/try'), ['patterns' => $now])
            ->assertJsonPath('clips.0.slate', '12A/3')
            ->assertJsonPath('clips.0.pattern', 'LW_{setup}_T{take}')
            ->assertJsonPath('clips.0.from', 'name');
        $this->postJson($this->onDay('log/read/try'), ['patterns' => ['{setup}']])
            ->assertStatus(422)
            ->assertJsonPath('code', 'slate.pattern');
        $this->postJson($this->onDay('log/read'))->assertJsonPath('read', 0);
        $this->putJson($this->at('patterns/slate'), ['was' => $was, 'now' => $now])->assertOk();
        $this->postJson($this->onDay('log/read'))->assertJsonPath('read', 1);
        self::assertSame('12A/3', Take::query()->sole()->label());
        $this->putJson($this->at('patterns/slate'), ['was' => $was, 'now' => ['X{setup}-{take}']])->assertStatus(409);
        $this->postJson($this->at('undo'));
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Change the slate patterns');
        $this->getJson($this->onDay('log/read'))->assertJsonPath('patterns', $was);
    }

    public function test_folders_say_the_slate_where_the_production_wrote_a_pattern_for_them(): void
    {
        $clip = $this->clip('C0012', 'A', 0, more: ['path' => 'DAY1/12A/T3/C0012.MP4']);
        $this->as()
            ->putJson($this->at('patterns/slate'), [
                'was' => $this->production->refresh()->slatePatterns(),
                'now' => ['{setup}/T{take}/{any}'],
            ])
            ->assertOk();
        $this->postJson($this->onDay('log/read'));
        self::assertSame('12A/3', $clip->refresh()->take?->label());
    }

    public function test_a_script_gives_headings_lengths_and_coverage_and_says_what_is_not_in_it(): void
    {
        $take = $this->take('3', 1, ['status' => 'circled']);
        $this->clip('A1', 'A', 0, 30, $take);
        $this->take('9', 1);
        Scene::query()->create(['production_id' => $this->production->id, 'name' => '3', 'heading' => 'old']);
        $send = fn(bool $apply) => $this->post(
            $this->at('script'),
            [
                'file' => UploadedFile::fake()->createWithContent(
                    'lw.fountain',
                    "INT. WHEEL ROOM - DAY #3#\n\nMARA\nListen.\n\nEXT. SLUICE - DUSK #7#\n\nNothing.\n",
                ),
                'apply' => $apply ? '1' : '0',
            ],
            ['Accept' => 'application/json'],
        );
        $this->as();
        $send(false)
            ->assertOk()
            ->assertJson(['scenes' => 2, 'new' => ['7'], 'gone' => []]);
        self::assertSame('old', Scene::query()->sole()->heading);
        $send(true)->assertOk();
        $scene = $this->getJson($this->onDay('scenes'))->json('scenes')['3'];
        self::assertSame(
            ['INT. WHEEL ROOM - DAY', ['Mara'], '1/8', 1, 1, 1],
            [$scene['heading'], $scene['characters'], $scene['pages'], $scene['setups'], $scene['takes'], $scene['circled']],
        );
        $titles = array_column($this->getJson($this->onDay('sheet'))->json('points'), 'title');
        self::assertContains('Scene 9 is not in the script', $titles);
        self::assertContains('1 scene of the script is not shot', $titles);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Bring in the script');
        self::assertSame('old', Scene::query()->sole()->heading);
    }

    public function test_a_text_without_scenes_is_no_script(): void
    {
        $this->as()
            ->post(
                $this->at('script'),
                ['file' => UploadedFile::fake()->createWithContent('x.txt', 'Dear all,'), 'apply' => '1'],
                ['Accept' => 'application/json'],
            )
            ->assertStatus(422)
            ->assertJsonPath('code', 'script.empty');
    }
}
