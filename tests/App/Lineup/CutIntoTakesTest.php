<?php

declare(strict_types=1);

namespace Tests\App\Lineup;

use App\Domain\Footage\TakeParts;
use App\Domain\Lineup\CutIntoTakes;
use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Take;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\TestCase;

final class CutIntoTakesTest extends TestCase
{
    private User $user;

    protected function setUp(): void
    {
        parent::setUp();
        $this->user = $this->person();
        $this->actingAs($this->user);
    }

    private function sound(string $name, float $at, string $scene, string $take, float $seconds = 20): Clip
    {
        $clip = $this->clip(
            $name,
            'S',
            $at,
            $seconds,
            more: [
                'facts' => [
                    'ixml' => [
                        'scene' => $scene,
                        'take' => $take,
                        'note' => 'boom in shot',
                        'circled' => true,
                        'no_good' => false,
                        'wild' => false,
                    ],
                ],
            ],
        );
        $this->place($clip, $at);

        return $clip;
    }

    private function picture(string $name, string $device, float $at, float $seconds = 15): Clip
    {
        $clip = $this->clip($name, $device, $at, $seconds);
        $this->place($clip, $at);

        return $clip;
    }

    private function cut(): int
    {
        return app(CutIntoTakes::class)($this->day, $this->user);
    }

    public function test_each_picture_gets_the_take_of_the_sound_that_ran_with_it_longest(): void
    {
        $this->sound('3-T01', 0, '3', '1');
        $this->sound('3-T02', 30, '3', '2');
        $first = $this->picture('A001C001', 'A', 2);
        $between = $this->picture('A001C002', 'A', 18, 30);
        self::assertSame(4, $this->cut());
        self::assertSame(['3/1', '3/2'], [$first->refresh()->take->label(), $between->refresh()->take->label()]);
        self::assertSame(0, $this->cut(), 'cut again, nothing changes');
    }

    public function test_the_recorders_circle_and_note_reach_the_take_and_a_persons_mark_stays(): void
    {
        $this->take('3', 1, ['status' => 'ng', 'notes' => 'by hand']);
        $this->sound('3-T01', 0, '3', '1');
        $this->sound('3-T02', 30, '3', '2');
        $this->cut();
        self::assertSame(
            ['ng', "by hand\nboom in shot"],
            [Take::query()->where('take', 1)->sole()->status, Take::query()->where('take', 1)->sole()->notes],
        );
        self::assertSame(
            ['circled', 'boom in shot'],
            [Take::query()->where('take', 2)->sole()->status, Take::query()->where('take', 2)->sole()->notes],
        );
    }

    public function test_what_a_person_set_on_one_clip_wins_over_the_recorder_for_all_that_ran_with_it(): void
    {
        $sound = $this->sound('3A-T04', 0, '3A', '4');
        $wide = $this->picture('A001C001', 'A', 1);
        $this->postJson($this->onDay('log/slate'), ['clips' => [$sound->ulid], 'slate' => '3A/3'])->assertOk();
        $this->cut();
        self::assertSame(['3A/3', '3A/3'], [$sound->refresh()->take->label(), $wide->refresh()->take->label()]);
    }

    public function test_pictures_without_sound_share_the_slate_that_one_of_them_names(): void
    {
        $close = $this->picture('3A_T02_B', 'B', 0);
        $wide = $this->picture('A001C004', 'A', 1);
        $this->cut();
        self::assertSame(['3A/2', '3A/2'], [$close->refresh()->take->label(), $wide->refresh()->take->label()]);
        self::assertSame('lineup', $wide->parts->sole()->said_by);
    }

    public function test_a_picture_that_ran_with_nobody_and_names_nothing_stays_without(): void
    {
        $this->sound('3-T01', 0, '3', '1');
        $alone = $this->picture('B001C003', 'B', 500, 4);
        $brief = $this->picture('A001C009', 'A', 19.5, 10);
        $this->cut();
        self::assertNull($alone->refresh()->take?->id);
        self::assertNull($brief->refresh()->take?->id, 'half a second together is not a take together');
    }

    public function test_a_disagreement_keeps_what_each_source_said_until_a_person_decides(): void
    {
        $this->sound('3A-T04', 0, '3A', '4');
        $close = $this->picture('3A_T03_B', 'B', 1);
        $this->cut();
        $take = $close->refresh()->take;
        self::assertSame('3A/4', $take->label());
        self::assertEqualsCanonicalizing(
            [['ixml', 4], ['name', 4], ['name', 3]],
            array_map(static fn(array $claim): array => [$claim['from'], $claim['take']], $take->claims),
        );
        $this->postJson($this->onDay('points'), ['key' => "claim.$take->ulid", 'fix' => 'slate:3A/3'])->assertOk();
        $this->cut();
        self::assertSame('3A/3', $close->refresh()->take->label(), 'line-up does not undo what a person decided');
        self::assertNull(Take::query()->where('take', 4)->first());
    }

    public function test_a_take_that_is_typed_before_its_card_is_in_stays(): void
    {
        $this->postJson($this->onDay('log/line'), ['text' => '7/1', 'row' => null])->assertOk();
        $this->sound('3-T01', 0, '3', '1');
        $this->cut();
        self::assertSame(['3/1', '7/1'], Take::query()->get()->map->label()->sort()->values()->all());
    }

    /** @return array<string, array{callable(Take): mixed}> */
    public static function meanwhile(): array
    {
        return [
            'words' => [
                static fn(Take $take) => $take
                    ->newQuery()
                    ->whereKey($take->id)
                    ->update(['set_by' => '{"description":{"by":"person","at":1}}']),
            ],
            'a note' => [
                static fn(Take $take) => DB::table('screening_notes')->insert([
                    'ulid' => (string) Str::ulid(),
                    'take_id' => $take->id,
                    'user_id' => auth()->id(),
                    'at_ticks' => 0,
                    'text' => 'hold it',
                ]),
            ],
            'nothing' => [static fn(Take $take) => null],
        ];
    }

    #[DataProvider('meanwhile')]
    public function test_a_take_that_a_person_says_something_of_while_it_is_cut_is_not_dropped(callable $say): void
    {
        $take = $this->take('9', 1, ['description' => '', 'size' => '', 'set_by' => null]);
        $this->sound('3-T01', 0, '3', '1');
        DB::connection()->beforeExecuting(static function (string $sql) use ($take, $say): void {
            static $isSaid = false;
            if (
                !$isSaid &&
                str_starts_with($sql, 'select * from `takes`') &&
                str_ends_with($sql, 'for update') &&
                str_contains($sql, ' in (')
            ) {
                $isSaid = true;
                $say($take);
            }
        });
        $this->cut();
        self::assertSame($this->dataName() !== 'nothing', Take::query()->whereKey($take->id)->exists());
    }

    public function test_a_slate_that_a_person_gives_while_it_is_cut_stands(): void
    {
        $sound = $this->sound('3-T01', 0, '3', '1');
        $seen = Clip::query()->with('parts')->findOrFail($sound->id);
        $this->postJson($this->onDay('log/line'), ['text' => '4/2', 'row' => $sound->ulid])->assertOk();
        $take = $this->take('3', 1);
        self::assertFalse(TakeParts::whole($seen, $take, 'ixml', new ChangeLog()));
        self::assertSame('4/2', $sound->refresh()->take->label());
    }

    public function test_the_whole_cut_is_one_step_to_take_back(): void
    {
        $this->sound('3-T01', 0, '3', '1');
        $wide = $this->picture('A001C001', 'A', 2);
        $this->cut();
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Cut the line-up into takes, 2 clips');
        self::assertNull($wide->refresh()->take?->id);
        self::assertSame(0, Take::query()->count());
    }

    public function test_wild_sound_claims_no_take(): void
    {
        $wild = $this->clip(
            '7-WILD1',
            'S',
            0,
            10,
            more: ['is_wild' => true, 'facts' => ['ixml' => ['scene' => '7', 'take' => '1', 'wild' => true, 'note' => null]]],
        );
        $this->place($wild, 0);
        $this->cut();
        self::assertNull($wild->refresh()->take?->id);
    }

    public function test_the_list_says_what_a_cut_would_do_and_why_and_writes_nothing(): void
    {
        $this->sound('3-T01', 0, '3', '1');
        $this->picture('A001C001', 'A', 2);
        $this->sound('3-T09', 100, '3', '9');
        $short = $this->picture('A001C002', 'A', 200, 3);
        $rows = array_column($this->getJson($this->onDay('cut'))->assertOk()->json('rows'), null, 'name');
        self::assertSame(
            ['take', '3/1', true, 'it ran with 3-T01'],
            [$rows['A001C001']['what'], $rows['A001C001']['now'], $rows['A001C001']['is_new'], $rows['A001C001']['why']],
        );
        self::assertSame('false_start', $rows['A001C002']['what']);
        self::assertSame([0, null], [Take::query()->count(), $short->refresh()->take?->id]);
        $all = $this->getJson($this->onDay('cut'))->json('rows');
        self::assertContains('wild', array_column(array_filter($all, static fn(array $row): bool => $row['name'] === '3-T09'), 'what'));
    }

    public function test_only_what_was_chosen_is_applied_named_by_the_pattern_and_taken_back_in_one_step(): void
    {
        $sound = $this->sound('3-T01', 0, '3', '1');
        $first = $this->picture('A001C001', 'A', 2);
        $other = $this->picture('B001C001', 'B', 3);
        $short = $this->picture('A001C002', 'A', 200, 3);
        $this->postJson($this->onDay('cut'), [
            'chosen' => ["$sound->ulid:take", "$first->ulid:take", "$short->ulid:false_start"],
            'pattern' => '{setup}-{take:2} {device}',
        ])
            ->assertOk()
            ->assertJsonPath('changed', 3);
        self::assertSame(['3/1', '3-01 A'], [$first->refresh()->take?->label(), $first->label]);
        self::assertTrue($short->refresh()->is_false_start);
        self::assertNull($other->refresh()->take?->id, 'what was not ticked stays as it is');
        $this->getJson($this->at('bins/scene:3/items'))->assertJsonPath('total', 2);
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame([null, null, false], [$first->refresh()->take?->id, $first->label, $short->refresh()->is_false_start]);
        self::assertSame(0, Take::query()->count());
    }

    public function test_what_a_run_cuts_is_named_by_the_productions_own_pattern_but_not_over_a_name_that_a_person_gave(): void
    {
        $this->production->update(['name_patterns' => ['{setup}-{take:2} {device}', '{original}']]);
        $take = $this->take('3', 1);
        $sound = $this->sound('3-T01', 0, '3', '1');
        $sound->parts()->create(['take_id' => $take->id, 'said_by' => 'ixml']);
        $first = $this->picture('A001C001', 'A', 2);
        $named = $this->picture('B001C001', 'B', 3);
        $named->parts()->create(['take_id' => $take->id, 'said_by' => 'person']);
        $named->update(['label' => 'the good one']);
        self::assertSame(1, $this->cut());
        self::assertSame(
            ['3-01 S', '3-01 A', 'the good one'],
            [$sound->refresh()->label, $first->refresh()->label, $named->refresh()->label],
        );
        $first->update(['label' => null]);
        self::assertSame(0, $this->cut());
        self::assertNull($first->refresh()->label, 'a run that cuts nothing names nothing');
    }

    public function test_picture_that_no_recording_ran_with_can_be_mos_and_is_not_asked_about_again(): void
    {
        $take = $this->take('7', 1);
        $clip = $this->clip('A001C009', 'A', 500, 20, $take);
        $this->place($clip, 500);
        $this->sound('3-T01', 0, '3', '1');
        $mos = fn(): array => array_values(
            array_filter($this->getJson($this->onDay('cut'))->json('rows'), static fn(array $row): bool => $row['what'] === 'mos'),
        );
        self::assertSame(['A001C009'], array_column($mos(), 'name'));
        $this->postJson($this->onDay('cut'), ['chosen' => ["$clip->ulid:mos"]])
            ->assertOk()
            ->assertJsonPath('changed', 1);
        self::assertTrue($take->refresh()->is_mos);
        self::assertSame([], $mos());
    }
}
