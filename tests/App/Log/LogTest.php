<?php

declare(strict_types=1);

namespace Tests\App\Log;

use App\Models\Role;
use App\Models\Take;
use Tests\App\TestCase;

final class LogTest extends TestCase
{
    private function ixml(string $scene, string $take, bool $circled = false): array
    {
        return [
            'facts' => [
                'ixml' => [
                    'scene' => $scene,
                    'take' => $take,
                    'note' => null,
                    'circled' => $circled,
                    'no_good' => false,
                    'false_start' => null,
                    'wild' => false,
                ],
            ],
        ];
    }

    public function test_read_slates_fills_takes_from_the_recorder_and_from_names_and_says_how_many(): void
    {
        $this->clip('3A-T01', 'S', 0, more: $this->ixml('3A', '1', circled: true));
        $this->clip('3A_T01_B', 'B', 0);
        $this->clip('A001C001', 'A', 0);
        $this->as()
            ->postJson($this->onDay('log/read'))
            ->assertOk()
            ->assertJson(['read' => 2, 'from_recorder' => 1, 'from_names' => 1, 'silent' => 1]);
        $sheet = $this->getJson($this->onDay('log'))->assertOk();
        $sheet
            ->assertJsonPath('takes.0.setup', '3A')
            ->assertJsonPath('takes.0.status', 'circled')
            ->assertJsonCount(2, 'takes.0.clips')
            ->assertJsonPath('unslated.0.name', 'A001C001');
        $this->postJson($this->onDay('log/read'))->assertJson(['read' => 0]);
    }

    public function test_a_persons_slate_is_not_overwritten_by_reading_again(): void
    {
        $clip = $this->clip('3A_T01_B', 'B', 0);
        $this->as()
            ->postJson($this->onDay('log/slate'), ['clips' => [$clip->ulid], 'slate' => '7b/2'])
            ->assertOk();
        $this->postJson($this->onDay('log/read'));
        self::assertSame('7B/2', $clip->refresh()->take->label());
    }

    public function test_a_slate_that_is_none_is_refused_in_words(): void
    {
        $clip = $this->clip('A001C001', 'A', 0);
        $this->as()
            ->postJson($this->onDay('log/slate'), ['clips' => [$clip->ulid], 'slate' => '12I/1'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'slate.unreadable');
        self::assertNull($clip->refresh()->take?->id);
    }

    public function test_takes_stand_in_slate_order(): void
    {
        foreach ([['12', 1], ['3B', 1], ['A13', 1], ['3', 2], ['3', 1], ['13', 1]] as [$setup, $take]) {
            $this->take($setup, $take);
        }
        $takes = $this->as()->getJson($this->onDay('log'))->json('takes');
        self::assertSame(
            ['3/1', '3/2', '3B/1', '12/1', 'A13/1', '13/1'],
            array_map(static fn(array $take): string => $take['setup'] . '/' . $take['take'], $takes),
        );
    }

    public function test_two_people_on_one_field_lose_nothing_and_the_second_sees_both(): void
    {
        $take = $this->take('3', 1);
        $this->as()
            ->patchJson($this->at("takes/$take->ulid"), ['changes' => ['description' => ['was' => '', 'now' => 'Mara turns']]])
            ->assertOk();
        $this->as()
            ->patchJson($this->at("takes/$take->ulid"), ['changes' => ['description' => ['was' => '', 'now' => 'Quill turns']]])
            ->assertStatus(409)
            ->assertJsonPath('context.fields.0', [
                'take' => $take->ulid,
                'label' => '3/1',
                'field' => 'description',
                'yours' => 'Quill turns',
                'theirs' => 'Mara turns',
            ]);
        self::assertSame('Mara turns', $take->refresh()->description);
    }

    public function test_two_people_on_two_fields_of_one_take_both_get_through(): void
    {
        $take = $this->take('3', 1);
        $this->as()
            ->patchJson($this->at("takes/$take->ulid"), ['changes' => ['description' => ['was' => '', 'now' => 'Mara turns']]])
            ->assertOk();
        $this->as()
            ->patchJson($this->at("takes/$take->ulid"), ['changes' => ['size' => ['was' => '', 'now' => 'Wide']]])
            ->assertOk();
        self::assertSame(['Mara turns', 'Wide'], [$take->refresh()->description, $take->size]);
    }

    public function test_every_step_is_taken_back_and_done_again_in_order(): void
    {
        $take = $this->take('3', 1);
        $this->as();
        $this->patchJson($this->at("takes/$take->ulid"), ['changes' => ['status' => ['was' => 'none', 'now' => 'circled']]]);
        $this->patchJson($this->at("takes/$take->ulid"), [
            'changes' => ['notes' => ['was' => '', 'now' => 'boom in shot'], 'is_mos' => ['was' => false, 'now' => true]],
        ]);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Edit notes, mos of 3/1');
        self::assertSame(['circled', null, false], [$take->refresh()->status, $take->notes, $take->is_mos]);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Circle 3/1');
        self::assertSame('none', $take->refresh()->status);
        $this->postJson($this->at('undo'))->assertJsonPath('label', null);
        $this->postJson($this->at('redo'));
        $this->postJson($this->at('redo'));
        self::assertSame(['circled', 'boom in shot', true], [$take->refresh()->status, $take->notes, $take->is_mos]);
    }

    public function test_reading_a_whole_day_is_one_step_to_take_back(): void
    {
        $this->clip('3_T01_B', 'B', 0);
        $this->clip('3_T02_B', 'B', 60);
        $this->as()->postJson($this->onDay('log/read'));
        self::assertSame(2, Take::query()->count());
        $this->postJson($this->at('undo'));
        self::assertSame(0, Take::query()->count());
        $this->postJson($this->at('redo'));
        $this->getJson($this->onDay('log'))->assertJsonCount(2, 'takes')->assertJsonCount(0, 'unslated');
    }

    public function test_a_step_is_not_taken_back_over_what_a_colleague_changed_since(): void
    {
        $take = $this->take('3', 1);
        $first = $this->person();
        $this->actingAs($first)->patchJson($this->at("takes/$take->ulid"), ['changes' => ['size' => ['was' => '', 'now' => 'Wide']]]);
        $this->as()->patchJson($this->at("takes/$take->ulid"), ['changes' => ['size' => ['was' => 'Wide', 'now' => 'Close']]]);
        $this->actingAs($first)->postJson($this->at('undo'))->assertStatus(409)->assertJsonPath('code', 'undo.conflict');
        self::assertSame('Close', $take->refresh()->size);
    }

    public function test_undo_takes_back_ones_own_steps_only(): void
    {
        $take = $this->take('3', 1);
        $this->as()->patchJson($this->at("takes/$take->ulid"), ['changes' => ['size' => ['was' => '', 'now' => 'Wide']]]);
        $this->as()->postJson($this->at('undo'))->assertJsonPath('label', null);
        self::assertSame('Wide', $take->refresh()->size);
    }

    public function test_a_slate_that_is_logged_already_is_not_given_twice(): void
    {
        $take = $this->take('3', 1);
        $this->take('3', 2);
        $this->as()
            ->patchJson($this->at("takes/$take->ulid"), ['changes' => ['take' => ['was' => 1, 'now' => 2]]])
            ->assertStatus(422)
            ->assertJsonPath('code', 'slate.taken');
    }

    public function test_a_reviewer_marks_a_take_and_changes_nothing_else(): void
    {
        $take = $this->take('3', 1, ['status' => 'none']);
        $this->as(Role::Reviewer)
            ->putJson($this->at("takes/$take->ulid/circle"), ['was' => 'none', 'now' => 'circled'])
            ->assertOk();
        $this->putJson($this->at("takes/$take->ulid/circle"), ['was' => 'circled', 'now' => 'lovely'])->assertStatus(422);
        $this->patchJson($this->at("takes/$take->ulid"), ['changes' => ['size' => ['was' => '', 'now' => 'Wide']]])
            ->assertForbidden()
            ->assertJsonPath('code', 'role.forbidden');
        self::assertSame('circled', $take->refresh()->status);
    }

    public function test_a_new_take_of_a_setup_begins_with_what_its_neighbour_says(): void
    {
        $this->take('3A', 1, ['description' => 'Mara turns', 'size' => 'Medium']);
        $clip = $this->clip('A001C002', 'A', 0);
        $this->as()->postJson($this->onDay('log/slate'), ['clips' => [$clip->ulid], 'slate' => '3A/2']);
        self::assertSame(['Mara turns', 'Medium'], [$clip->refresh()->take->description, $clip->take->size]);
    }
}
