<?php

declare(strict_types=1);

namespace Tests\App\Log;

use App\Models\Role;
use App\Models\Take;
use Tests\App\TestCase;

final class TakeHistoryTest extends TestCase
{
    /** @return list<array<string, mixed>> */
    private function steps(Take $take): array
    {
        return $this->getJson($this->at("takes/$take->ulid/history"))->assertOk()->json('steps');
    }

    private function edit(Take $take, string $field, mixed $was, mixed $now): void
    {
        $this->patchJson($this->at("takes/$take->ulid"), ['changes' => [$field => ['was' => $was, 'now' => $now]]])->assertOk();
    }

    public function test_every_step_says_who_changed_what_from_what_to_what(): void
    {
        $take = $this->take('3A', 4, ['description' => 'Mara turns']);
        $this->as();
        $this->edit($take, 'description', 'Mara turns', 'Mara turns, drops the ledger');
        $this->edit($take, 'absent_devices', [], ['B']);
        $this->as(Role::Editor)
            ->putJson($this->at("takes/$take->ulid/circle"), ['was' => 'none', 'now' => 'circled'])
            ->assertOk();
        $steps = $this->steps($take);
        self::assertSame(
            [
                ['Editor Person', [['field' => 'status', 'from' => 'none', 'to' => 'circled']]],
                ['Assistant Person', [['field' => 'absent devices', 'from' => '', 'to' => 'B']]],
                ['Assistant Person', [['field' => 'description', 'from' => 'Mara turns', 'to' => 'Mara turns, drops the ledger']]],
            ],
            array_map(static fn(array $step): array => [$step['by'], $step['fields']], $steps),
        );
    }

    public function test_a_take_that_was_read_from_slates_with_a_disagreement_has_its_history_too(): void
    {
        foreach (['3A-T04' => ['S', ['scene' => '3A', 'take' => '4']], '3A_T03_A' => ['A', null]] as $name => [$device, $ixml]) {
            $this->clip($name, $device, 36_000, more: ['facts' => ['ixml' => $ixml]]);
        }
        $this->as()->postJson($this->onDay('log/read'))->assertOk();
        foreach (Take::query()->get() as $take) {
            $take->update(['claims' => [['from' => 'name', 'where' => 'x', 'setup' => '3A', 'take' => 3]]]);
            $this->edit($take, 'status', 'none', 'hold');
            self::assertSame([['field' => 'status', 'from' => 'none', 'to' => 'hold']], $this->steps($take)[0]['fields']);
            self::assertContains(
                ['field' => 'setup', 'from' => '', 'to' => '3A'],
                $this->steps($take)[1]['fields'],
                'that it was made is its first step',
            );
        }
    }

    public function test_a_step_that_was_taken_back_stays_and_says_so(): void
    {
        $take = $this->take('3A', 4);
        $this->as();
        $this->edit($take, 'status', 'none', 'ng');
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame([true], array_column($this->steps($take), 'undone'));
    }

    public function test_clips_that_join_and_leave_are_steps_of_both_takes(): void
    {
        $from = $this->take('3A', 4);
        $to = $this->take('3A', 5);
        $clip = $this->clip('A003C005', 'A', 36_000, take: $from);
        $this->as()
            ->postJson($this->onDay('log/slate'), ['clips' => [$clip->ulid], 'slate' => '3A/5'])
            ->assertOk();
        self::assertContains(['field' => 'clip', 'from' => 'A003C005', 'to' => ''], $this->steps($from)[0]['fields']);
        self::assertContains(['field' => 'clip', 'from' => '', 'to' => 'A003C005'], $this->steps($to)[0]['fields']);
    }

    public function test_another_takes_steps_are_not_in_it(): void
    {
        $take = $this->take('3A', 4);
        $other = $this->take('3A', 5);
        $this->as();
        $this->edit($other, 'status', 'none', 'ng');
        self::assertSame([], $this->steps($take));
    }
}
