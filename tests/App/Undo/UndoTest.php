<?php

declare(strict_types=1);

namespace Tests\App\Undo;

use App\Domain\Undo\UndoChange;
use App\Models\Bin;
use App\Models\Change;
use App\Models\Role;
use App\Models\ScreeningNote;
use App\Models\Take;
use App\Models\User;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\DB;
use Tests\App\TestCase;

/** Two people at one sheet: what one takes back never takes the other's along. */
final class UndoTest extends TestCase
{
    private User $rosa;

    private User $ines;

    protected function setUp(): void
    {
        parent::setUp();
        $this->rosa = $this->person();
        $this->ines = $this->person(Role::Admin);
        $this->ines->update(['name' => 'Ines Halloran']);
    }

    private function edit(User $who, Take $take, string $field, mixed $was, mixed $now): void
    {
        $this->actingAs($who)
            ->patchJson($this->at("takes/$take->ulid"), ['changes' => [$field => ['was' => $was, 'now' => $now]]])
            ->assertOk();
    }

    public function test_edits_of_two_people_on_different_fields_of_one_take_never_block_each_other(): void
    {
        $take = $this->take('3', 1);
        $this->edit($this->rosa, $take, 'description', '', 'Mara opens the sluice');
        $this->edit($this->ines, $take, 'notes', '', 'gull on the boom');
        $this->actingAs($this->rosa)->postJson($this->at('undo'))->assertOk()->assertJsonPath('stayed', []);
        self::assertSame(['', 'gull on the boom'], [$take->refresh()->description, $take->notes]);
        self::assertSame(['notes'], array_keys($take->set_by), 'who set the notes is still known, and nobody set the description');
        $this->postJson($this->at('redo'))->assertOk();
        self::assertSame(['Mara opens the sluice', 'gull on the boom'], [$take->refresh()->description, $take->notes]);
        $this->actingAs($this->ines)->postJson($this->at('undo'))->assertOk();
        self::assertSame(['Mara opens the sluice', null], [$take->refresh()->description, $take->notes]);
    }

    public function test_two_requests_at_once_take_back_two_steps(): void
    {
        $take = $this->take('3', 1);
        $this->edit($this->rosa, $take, 'size', '', 'Wide');
        $this->edit($this->rosa, $take, 'description', '', 'Mara opens');
        $isFirst = true;
        DB::listen(function (QueryExecuted $query) use (&$isFirst): void {
            if ($isFirst && str_starts_with($query->sql, 'select * from `changes`')) {
                $isFirst = false;
                // Both have chosen the same step; the other one was faster.
                app(UndoChange::class)->undo($this->production, $this->rosa);
            }
        });
        $this->actingAs($this->rosa)->postJson($this->at('undo'))->assertOk()->assertJsonPath('label', 'Edit size of 3/1');
        self::assertSame(['', ''], [$take->refresh()->description, $take->size]);
        self::assertSame(0, Change::query()->whereNotNull('skipped_at')->count(), 'both can be done again');
    }

    public function test_a_step_that_cannot_be_taken_back_is_passed_over_with_a_word_and_the_one_before_stays_in_reach(): void
    {
        $take = $this->take('3', 1);
        $this->edit($this->rosa, $take, 'size', '', 'Wide');
        $this->edit($this->rosa, $take, 'description', '', 'Mara opens');
        $this->edit($this->ines, $take, 'description', 'Mara opens', 'Mara shuts');
        $refusal = $this->actingAs($this->rosa)
            ->postJson($this->at('undo'))
            ->assertStatus(409)
            ->assertJsonPath('code', 'undo.conflict')
            ->json('message');
        self::assertStringContainsString('Ines Halloran changed it since', $refusal);
        self::assertSame('Mara shuts', $take->refresh()->description);
        $this->postJson($this->at('undo'))->assertOk()->assertJsonPath('label', 'Edit size of 3/1');
        self::assertSame('', $take->refresh()->size);
    }

    public function test_of_five_hundred_pasted_rows_all_but_the_one_that_was_changed_since_are_taken_back(): void
    {
        $edits = [];
        for ($n = 1; $n <= 500; $n++) {
            $edits[] = ['take' => $this->take('7', $n)->ulid, 'changes' => ['description' => ['was' => '', 'now' => "row $n"]]];
        }
        $this->actingAs($this->rosa)
            ->patchJson($this->onDay('takes'), ['edits' => $edits])
            ->assertOk();
        $changed = Take::query()->where('take', 250)->sole();
        $this->edit($this->ines, $changed, 'description', 'row 250', 'corrected');
        $answer = $this->actingAs($this->rosa)->postJson($this->at('undo'))->assertOk()->assertJsonPath('stayed_count', 1);
        self::assertStringContainsString('7/250 stays: Ines Halloran changed it since', $answer->json('stayed.0'));
        self::assertSame(['corrected'], Take::query()->where('description', '!=', '')->pluck('description')->all());
    }

    public function test_a_take_is_not_unmade_under_a_colleagues_note(): void
    {
        $clip = $this->clip('A001C001', 'A', 10);
        $this->actingAs($this->rosa)
            ->postJson($this->onDay('log/slate'), ['clips' => [$clip->ulid], 'slate' => '3/1'])
            ->assertOk();
        $take = Take::query()->sole();
        $this->actingAs($this->ines)
            ->postJson($this->at("takes/$take->ulid/notes"), ['clip' => $clip->ulid, 'at_ticks' => 0, 'text' => 'keep this'])
            ->assertSuccessful();
        $refusal = $this->actingAs($this->rosa)->postJson($this->at('undo'))->assertStatus(409)->json('message');
        self::assertStringContainsString('a note of Ines Halloran hangs on it', $refusal);
        self::assertSame(
            [1, $take->id],
            [ScreeningNote::query()->count(), $clip->refresh()->take?->id],
            'the take keeps its clip and its note',
        );
    }

    public function test_a_bin_is_not_unmade_under_a_colleagues_bin_or_what_they_put_in(): void
    {
        $bin = $this->actingAs($this->rosa)
            ->postJson($this->at('bins'), ['name' => 'Details'])
            ->assertStatus(201)
            ->json('key');
        $this->actingAs($this->ines)
            ->postJson($this->at('bins'), ['name' => 'Wheel', 'parent' => $bin])
            ->assertStatus(201);
        $this->actingAs($this->rosa)->postJson($this->at('undo'))->assertStatus(409);
        self::assertSame(2, Bin::query()->count());
        $this->actingAs($this->ines)->postJson($this->at('undo'))->assertOk();
        self::assertSame(['Details'], Bin::query()->pluck('name')->all());
    }

    public function test_a_creation_that_somebody_changed_since_stays(): void
    {
        $bin = $this->actingAs($this->rosa)
            ->postJson($this->at('bins'), ['name' => 'Details'])
            ->json('key');
        $this->actingAs($this->ines)
            ->patchJson($this->at("bins/$bin"), ['name' => 'Wheel details'])
            ->assertOk();
        $this->actingAs($this->rosa)->postJson($this->at('undo'))->assertStatus(409);
        self::assertSame('Wheel details', Bin::query()->sole()->name);
    }

    public function test_what_was_removed_comes_back_only_where_its_place_is_free(): void
    {
        $bin = $this->actingAs($this->rosa)
            ->postJson($this->at('bins'), ['name' => 'Details'])
            ->json('key');
        $this->deleteJson($this->at("bins/$bin"))->assertOk();
        Bin::query()->create([
            'id' => Change::query()->latest('id')->first()->rows[0]['id'],
            'production_id' => $this->production->id,
            'name' => 'Another',
        ]);
        $this->postJson($this->at('undo'))->assertStatus(409)->assertJsonPath('code', 'undo.conflict');
        self::assertSame(['Another'], Bin::query()->pluck('name')->all());
    }
}
