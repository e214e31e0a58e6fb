<?php

declare(strict_types=1);

namespace Tests\App\Log;

use App\Models\Clip;
use App\Models\Role;
use App\Models\Take;
use Tests\App\TestCase;

final class SheetEditingTest extends TestCase
{
    /** @param  array<string, array{0: mixed, 1: mixed}>  $changes  was and now by field */
    private static function edit(Take $take, array $changes): array
    {
        return [
            'take' => $take->ulid,
            'changes' => array_map(static fn(array $pair): array => ['was' => $pair[0], 'now' => $pair[1]], $changes),
        ];
    }

    public function test_a_pasted_range_is_one_step_and_is_taken_back_whole(): void
    {
        $takes = array_map(fn(int $n): Take => $this->take('3', $n), range(1, 3));
        $this->as()
            ->patchJson($this->onDay('takes'), [
                'edits' => array_map(
                    static fn(Take $take): array => self::edit($take, ['description' => ['', "Line $take->take"], 'size' => ['', 'Wide']]),
                    $takes,
                ),
            ])
            ->assertOk()
            ->assertJsonPath('takes', 3);
        self::assertSame(['Line 1', 'Line 2', 'Line 3'], Take::query()->orderBy('take')->pluck('description')->all());
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Edit description, size of 3 takes');
        self::assertSame(['', '', ''], Take::query()->orderBy('take')->pluck('description')->all());
    }

    public function test_one_conflict_in_a_range_writes_nothing_and_shows_every_conflict(): void
    {
        [$first, $second] = [$this->take('3', 1), $this->take('3', 2, ['size' => 'Close'])];
        $this->as()
            ->patchJson($this->onDay('takes'), [
                'edits' => [self::edit($first, ['size' => ['', 'Wide']]), self::edit($second, ['size' => ['', 'Wide']])],
            ])
            ->assertStatus(409)
            ->assertJsonPath('context.fields', [
                ['take' => $second->ulid, 'label' => '3/2', 'field' => 'size', 'yours' => 'Wide', 'theirs' => 'Close'],
            ]);
        self::assertSame('', $first->refresh()->size);
    }

    public function test_a_whole_row_of_numbers_can_move_on_by_one_and_back(): void
    {
        $takes = array_map(fn(int $n): Take => $this->take('3', $n), range(1, 4));
        $this->as()
            ->patchJson($this->onDay('takes'), [
                'edits' => array_map(static fn(Take $take): array => self::edit($take, ['take' => [$take->take, $take->take + 1]]), $takes),
            ])
            ->assertOk();
        self::assertSame([2, 3, 4, 5], Take::query()->orderBy('id')->pluck('take')->all());
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame([1, 2, 3, 4], Take::query()->orderBy('id')->pluck('take')->all());
    }

    public function test_a_take_of_another_production_is_not_found_in_a_range(): void
    {
        $theirs = $this->take('3', 1);
        $this->production = \App\Models\Production::query()->create(['name' => 'Other', 'rate_num' => 25, 'rate_den' => 1]);
        $this->day = \App\Models\ShootDay::query()->create([
            'production_id' => $this->production->id,
            'number' => 1,
            'date' => '2026-10-05',
        ]);
        $this->as()
            ->patchJson($this->onDay('takes'), ['edits' => [self::edit($theirs, ['size' => ['', 'Wide']])]])
            ->assertNotFound();
        self::assertSame('', $theirs->refresh()->size);
    }

    public function test_a_series_take_stands_beside_its_number_without_a_new_slate(): void
    {
        $this->take('3A', 4, ['part' => 'a']);
        $clip = $this->clip('A001C002', 'A', 0);
        $this->as()
            ->postJson($this->onDay('log/slate'), ['clips' => [$clip->ulid], 'slate' => '3A/4b'])
            ->assertOk();
        self::assertSame('3A/4b', $clip->refresh()->take->label());
        $takes = $this->getJson($this->onDay('log'))->json('takes');
        self::assertSame(['4a', '4b'], array_map(static fn(array $take): string => $take['take'] . $take['part'], $takes));
    }

    public function test_the_log_line_says_what_it_will_do_and_then_does_it_in_one_step(): void
    {
        $clip = $this->clip('A001C002', 'A', 0);
        $this->as();
        $this->getJson($this->onDay('log/line?row=' . $clip->ulid . '&text=' . rawurlencode('3A/4 wide, Mara turns, circled')))
            ->assertOk()
            ->assertJsonPath('slate', '3A/4')
            ->assertJsonPath('does', 'joins-new')
            ->assertJsonPath('pieces.1', ['is' => 'size', 'says' => 'Wide']);
        self::assertSame(0, Take::query()->count());
        $this->postJson($this->onDay('log/line'), ['text' => '3A/4 wide, Mara turns, circled', 'row' => $clip->ulid])
            ->assertOk()
            ->assertJsonPath('slate', '3A/4')
            ->assertJsonPath('made', true);
        $take = $clip->refresh()->take;
        self::assertSame(['Wide', 'Mara turns', 'circled'], [$take->size, $take->description, $take->status]);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Log 3A/4');
        self::assertSame([0, null], [Take::query()->count(), $clip->refresh()->take?->id]);
    }

    public function test_the_next_take_carries_scene_setup_description_and_size(): void
    {
        $take = $this->take('3A', 2, ['description' => 'Mara turns', 'size' => 'Medium']);
        $this->as()
            ->postJson($this->onDay('log/line'), ['text' => '+', 'row' => $take->ulid])
            ->assertOk()
            ->assertJsonPath('slate', '3A/3');
        $next = Take::query()->where('take', 3)->sole();
        self::assertSame(['3', '3A', 'Mara turns', 'Medium'], [$next->scene, $next->setup, $next->description, $next->size]);
    }

    public function test_a_line_that_is_no_slate_is_explained_and_nothing_is_written(): void
    {
        $this->as()
            ->postJson($this->onDay('log/line'), ['text' => '3I/4 wide', 'row' => null])
            ->assertStatus(422)
            ->assertJsonPath('code', 'line.slate')
            ->assertJsonPath('message', '"3I" uses I or O, which slates leave out.');
        $this->postJson($this->onDay('log/line'), ['text' => 'wide', 'row' => null])->assertStatus(422);
        self::assertSame(0, Take::query()->count());
    }

    public function test_columns_are_kept_for_each_person_and_production(): void
    {
        $columns = [['key' => 'size', 'width' => 80, 'shown' => true], ['key' => 'notes', 'width' => 200, 'shown' => false]];
        $first = $this->person();
        $this->actingAs($first)
            ->putJson($this->at('log-columns'), ['columns' => $columns])
            ->assertOk();
        $this->actingAs($this->person())->getJson($this->at('log-columns'))->assertJsonPath('columns', null);
        $this->actingAs($first)->getJson($this->at('log-columns'))->assertJsonPath('columns', $columns);
        $this->putJson($this->at('log-columns'), ['columns' => null])->assertOk();
        $this->getJson($this->at('log-columns'))->assertJsonPath('columns', null);
    }

    public function test_a_hundred_steps_are_taken_back_in_a_later_session(): void
    {
        $take = $this->take('3', 1);
        $user = $this->person();
        for ($n = 0; $n < 100; $n++) {
            $this->actingAs($user)
                ->patchJson($this->at("takes/$take->ulid"), [
                    'changes' => ['description' => ['was' => $n === 0 ? '' : (string) ($n - 1), 'now' => (string) $n]],
                ])
                ->assertOk();
        }
        $this->app['auth']->forgetGuards();
        for ($n = 0; $n < 100; $n++) {
            $this->actingAs($user->fresh())->postJson($this->at('undo'))->assertJsonPath('label', 'Edit description of 3/1');
        }
        self::assertSame('', $take->refresh()->description);
    }

    public function test_where_a_person_stands_is_told_to_the_others(): void
    {
        $take = $this->take('3', 1);
        $this->as(Role::Reviewer)
            ->postJson($this->onDay('log/here'), ['row' => $take->ulid])
            ->assertOk();
        $this->as();
        $last = (int) $this->getJson($this->at('changes'))->json('last');
        $event = $this->getJson($this->at('changes?after=' . ($last - 1)))->json('events.0');
        self::assertSame(['here', $take->ulid, 'RP'], [$event['topic'], $event['facts']['row'], $event['facts']['initials']]);
    }

    public function test_running_numbers_stand_under_their_scenes_and_the_scene_is_typed_beside_them(): void
    {
        $this->production->update(['slate_style' => 'number']);
        $clip = $this->clip('A001C001', 'A', 0);
        $this->as()
            ->postJson($this->onDay('log/line'), ['text' => '12 214/1 wide, Quill reads', 'row' => $clip->ulid])
            ->assertOk()
            ->assertJsonPath('slate', '214/1');
        $this->postJson($this->onDay('log/line'), ['text' => '3 230/1 close', 'row' => null])->assertOk();
        $this->postJson($this->onDay('log/line'), ['text' => '214/2', 'row' => null])->assertOk();
        $label = static fn(array $take): string => $take['scene'] . ' ' . $take['setup'] . '/' . $take['take'];
        self::assertSame(['3 230/1', '12 214/1', '12 214/2'], array_map($label, $this->getJson($this->onDay('log'))->json('takes')));
        $take = Take::query()->where('setup', '230')->sole();
        $this->patchJson($this->onDay('takes'), ['edits' => [self::edit($take, ['scene' => ['3', '13A']])]])->assertOk();
        self::assertSame(['12 214/1', '12 214/2', '13A 230/1'], array_map($label, $this->getJson($this->onDay('log'))->json('takes')));
        $this->patchJson($this->onDay('takes'), ['edits' => [self::edit($take, ['setup' => ['230', '21A']])]])
            ->assertStatus(422)
            ->assertJsonPath('code', 'slate.unreadable');
        $this->postJson($this->at('undo'));
        self::assertSame('3', $take->refresh()->scene);
    }

    public function test_a_typed_line_adds_to_notes_and_keywords_and_replaces_words(): void
    {
        $take = $this->take('3A', 3, ['notes' => 'boom in', 'keywords' => 'ledger', 'description' => 'Mara turns']);
        $this->as()
            ->postJson($this->onDay('log/line'), [
                'text' => 'Mara stays, #sluice, note: gull',
                'row' => $take->ulid,
                'seen' => ['description' => 'Mara turns', 'slate' => null],
            ])
            ->assertOk();
        self::assertSame(["boom in\ngull", 'ledger, sluice', 'Mara stays'], [$take->refresh()->notes, $take->keywords, $take->description]);
    }

    public function test_a_typed_line_never_overwrites_what_a_colleague_has_typed_meanwhile(): void
    {
        $take = $this->take('3A', 3, ['description' => 'Theirs']);
        $line = ['text' => 'Mine', 'row' => $take->ulid, 'seen' => ['description' => '', 'slate' => null]];
        $this->as()->postJson($this->onDay('log/line'), $line)->assertStatus(409)->assertJsonPath('context.fields.0.theirs', 'Theirs');
        self::assertSame('Theirs', $take->refresh()->description);
        $this->postJson($this->onDay('log/line'), ['seen' => ['description' => 'Theirs', 'slate' => null]] + $line)->assertOk();
        self::assertSame('Mine', $take->refresh()->description);
    }

    public function test_a_clip_that_a_colleague_has_logged_meanwhile_keeps_its_slate(): void
    {
        $clip = $this->clip('A001C002', 'A', 0, take: $this->take('3', 1));
        $this->as()
            ->postJson($this->onDay('log/line'), ['text' => '7/1', 'row' => $clip->ulid, 'seen' => ['slate' => null]])
            ->assertStatus(409);
        $this->postJson($this->onDay('log/slate'), ['clips' => [$clip->ulid], 'slate' => '7/1', 'was' => null])->assertStatus(409);
        self::assertSame(['3/1', 1], [$clip->refresh()->take->label(), Take::query()->count()], 'and no take is left over');
        $this->postJson($this->onDay('log/slate'), ['clips' => [$clip->ulid], 'slate' => '7/1', 'was' => '3/1'])->assertOk();
        self::assertSame('7/1', $clip->refresh()->take->label());
    }

    /** @return list<string> ulids of new clips without a slate */
    private function unslated(int $count): array
    {
        return array_map(fn(int $n): string => $this->clip("A001C00$n", 'A', 60 * $n)->ulid, range(1, $count));
    }

    /** @return list<string|null> by clip */
    private function slates(): array
    {
        return Clip::query()->orderBy('id')->get()->map(static fn(Clip $clip): ?string => $clip->take?->label())->all();
    }

    public function test_several_clips_at_once_get_one_slate_or_a_running_one(): void
    {
        $clips = $this->unslated(3);
        $this->as()
            ->postJson($this->onDay('log/slate'), ['clips' => $clips, 'slate' => '3A/2'])
            ->assertOk();
        self::assertSame(['3A/2', '3A/2', '3A/2'], $this->slates());
        $this->postJson($this->at('undo'))->assertJsonPath('label', '3 clips are 3A/2');
        // In the order in which they were chosen, whatever they are called.
        $this->postJson($this->onDay('log/slate'), ['clips' => array_reverse($clips), 'slate' => '3A/2+'])->assertOk();
        self::assertSame(['3A/4', '3A/3', '3A/2'], $this->slates());
        $this->postJson($this->at('undo'))->assertJsonPath('label', '3 clips are 3A/2 to 3A/4');
        self::assertSame([[null, null, null], 0], [$this->slates(), Take::query()->count()]);
    }

    public function test_pasted_slates_go_one_to_each_clip_and_none_of_them_where_one_is_wrong(): void
    {
        $clips = $this->unslated(3);
        $this->as()
            ->postJson($this->onDay('log/slate'), ['clips' => $clips, 'slates' => ['3A/1', 'tea', '3A/2']])
            ->assertStatus(422);
        $this->postJson($this->onDay('log/slate'), ['clips' => $clips, 'slates' => ['3A/1']])->assertStatus(422);
        self::assertSame([[null, null, null], 0], [$this->slates(), Take::query()->count()]);
        $this->postJson($this->onDay('log/slate'), ['clips' => $clips, 'slates' => ['3A/1', null, '3B/2']])->assertOk();
        self::assertSame(['3A/1', null, '3B/2'], $this->slates());
        // Of what somebody logged meanwhile nothing is overwritten unseen.
        $this->postJson($this->onDay('log/slate'), [
            'clips' => $clips,
            'slates' => ['7/1', '7/2', '7/3'],
            'were' => ['3A/1', null, null],
        ])->assertStatus(409);
        self::assertSame(['3A/1', null, '3B/2'], $this->slates());
    }

    public function test_an_entry_whose_answer_was_lost_counts_once_even_when_it_was_taken_back_meanwhile(): void
    {
        $take = $this->take('3A', 1);
        $send = fn() => $this->patchJson($this->onDay('takes'), [
            'edits' => [self::edit($take, ['size' => ['', 'Wide']])],
            'entry' => 'page-7.1790000000000.1',
        ])->assertOk();
        $this->as();
        $send();
        $this->postJson($this->at('undo'))->assertOk();
        $send();
        self::assertSame('', $take->refresh()->size);
        // Another person's entry of the same name is another one.
        $this->as();
        $send();
        self::assertSame('Wide', $take->refresh()->size);
    }

    public function test_an_entry_that_was_refused_may_come_again(): void
    {
        $take = $this->take('3A', 1, ['size' => 'Close']);
        $body = ['edits' => [self::edit($take, ['size' => ['', 'Wide']])], 'entry' => 'page-7.1790000000000.2'];
        $this->as()->patchJson($this->onDay('takes'), $body)->assertStatus(409);
        $take->update(['size' => '']);
        $this->patchJson($this->onDay('takes'), $body)->assertOk();
        self::assertSame('Wide', $take->refresh()->size);
    }

    public function test_clips_without_a_slate_are_marked_wild_together(): void
    {
        $clips = $this->unslated(2);
        $this->as()
            ->postJson($this->onDay('log/slate'), ['clips' => $clips, 'wild' => true])
            ->assertOk();
        self::assertSame([true, true], Clip::query()->pluck('is_wild')->all());
        $this->postJson($this->at('undo'))->assertJsonPath('label', '2 clips are wild');
        self::assertSame([false, false], Clip::query()->pluck('is_wild')->all());
    }

    public function test_a_slate_is_typed_over_one_that_no_rule_reads_and_what_is_none_changes_nothing(): void
    {
        $take = $this->take('12-14', 1, ['scene' => '12-14']);
        $was = ['setup' => '12-14', 'take' => 1, 'part' => ''];
        $type = fn(string $now) => $this->patchJson($this->onDay('takes'), [
            'edits' => [['take' => $take->ulid, 'changes' => ['slate' => ['was' => $was, 'now' => $now]]]],
        ]);
        $this->as();
        $type('twelve')->assertStatus(422)->assertJsonPath('message', '"twelve" is not a slate.');
        self::assertSame('12-14/1', $take->refresh()->label());
        $type('12B 3b')->assertOk();
        self::assertSame(['12B/3b', '12'], [$take->refresh()->label(), $take->scene]);
        // Somebody who still sees the old slate is told so.
        $type('3/1')->assertStatus(409);
    }
}
