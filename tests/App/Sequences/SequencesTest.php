<?php

declare(strict_types=1);

namespace Tests\App\Sequences;

use App\Domain\Sequences\SequenceStore;
use App\Models\Clip;
use App\Models\SequenceStep;
use App\Models\StoredSequence;
use App\Models\User;
use Cartella\Core\Cutting\Item;
use Database\Factories\StoredSequenceFactory;
use Illuminate\Support\Facades\DB;
use Tests\App\TestCase;

/** One cut, and two people at it. Sources A to E play ten frames each, one after the other. */
final class SequencesTest extends TestCase
{
    private const FRAME = StoredSequenceFactory::FRAME;

    private StoredSequence $cut;

    private User $rosa;

    private User $ben;

    protected function setUp(): void
    {
        parent::setUp();
        $this->cut = StoredSequenceFactory::new()
            ->showing(['A', 'B', 'C', 'D', 'E'])
            ->createOne(['production_id' => $this->production->id]);
        $this->ben = $this->person();
        $this->ben->update(['name' => 'Ben']);
        $this->rosa = $this->person();
        $this->actingAs($this->rosa);
    }

    /** `A 0-10, B 10-20`: what plays when, in frames. */
    private function told(): string
    {
        $items = app(SequenceStore::class)->read($this->cut->refresh())->tracks[0]->items;

        return implode(
            ', ',
            array_map(
                static fn(Item $item): string => sprintf(
                    '%s %d-%d',
                    $item->name,
                    $item->recordStartTicks / self::FRAME,
                    $item->recordEndTicks() / self::FRAME,
                ),
                $items,
            ),
        );
    }

    /** @param  array<string, mixed>  $operation  amounts in frames */
    private function edit(int $step, array $operation, string $label = 'Trim'): \Illuminate\Testing\TestResponse
    {
        foreach ($operation as $field => $value) {
            $operation[$field] = str_ends_with($field, '_ticks') ? $value * self::FRAME : $value;
        }

        return $this->postJson($this->at("sequences/{$this->cut->ulid}/edit"), [
            'step' => $step,
            'label' => $label,
            'operations' => [$operation],
        ]);
    }

    /** @return array<string, mixed> */
    private static function trim(int $index, int $frames, bool $ripple = true): array
    {
        return ['op' => 'trim', 'track' => 0, 'index' => $index, 'edge' => 'tail', 'by_ticks' => $frames, 'ripple' => $ripple];
    }

    public function test_an_edit_is_a_short_step_and_the_cut_is_read_from_any_of_them(): void
    {
        $this->edit(0, self::trim(0, -4))->assertOk()->assertJsonPath('step.number', 1);
        $this->edit(1, self::trim(1, 5))->assertOk();
        self::assertSame('A 0-6, B 6-21, C 21-31, D 31-41, E 41-51', $this->told());
        app(SequenceStore::class)->settle($this->cut->id);
        self::assertSame('A 0-6, B 6-21, C 21-31, D 31-41, E 41-51', $this->told(), 'written down whole, it is the same');
        $first = app(SequenceStore::class)->read($this->cut->refresh(), 0);
        self::assertSame(50 * self::FRAME, $first->durationTicks(), 'and it goes back behind what was written down');
    }

    public function test_what_is_refused_changes_nothing_and_says_why(): void
    {
        $this->edit(0, self::trim(0, -10))->assertStatus(422)->assertJsonPath('message', 'Nothing would be left of the item.');
        $this->edit(0, ['op' => 'explode'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'cut.operation');
        $this->edit(7, self::trim(0, -1))->assertStatus(422)->assertJsonPath('code', 'cut.step');
        self::assertSame([0, 0], [$this->cut->refresh()->step, SequenceStep::query()->count()]);
    }

    public function test_two_people_at_different_places_both_get_what_they_meant(): void
    {
        $this->actingAs($this->ben);
        $this->edit(0, self::trim(0, -4))->assertOk();
        $this->actingAs($this->rosa);
        $this->edit(0, self::trim(3, 3))->assertOk();
        self::assertSame('A 0-6, B 6-16, C 16-26, D 26-39, E 39-49', $this->told());
    }

    public function test_two_people_at_one_place_the_second_is_told_whose_change_is_in_the_way(): void
    {
        $this->actingAs($this->ben);
        $this->edit(0, self::trim(2, -4), 'Trim C')->assertOk();
        $this->actingAs($this->rosa);
        $this->edit(0, self::trim(2, 3))
            ->assertStatus(409)
            ->assertJsonPath('message', 'Ben changed the same place of the cut meanwhile: Trim C.');
        self::assertSame('A 0-10, B 10-20, C 20-26, D 26-36, E 36-46', $this->told());
    }

    public function test_a_step_is_taken_back_under_a_colleagues_work_and_done_again(): void
    {
        $this->edit(0, self::trim(0, -4))->assertOk();
        $this->actingAs($this->ben);
        $this->edit(1, self::trim(3, 3))->assertOk();
        $this->actingAs($this->rosa);
        // The page that took it back need not ask how the cut goes on.
        $this->postJson($this->at('undo'))
            ->assertOk()
            ->assertJsonPath('label', 'Trim')
            ->assertJsonPath('sequence', $this->cut->ulid)
            ->assertJsonPath('step.number', 3);
        self::assertSame('A 0-10, B 10-20, C 20-30, D 30-43, E 43-53', $this->told());
        $this->postJson($this->at('redo'))->assertOk()->assertJsonPath('step.number', 4);
        self::assertSame('A 0-6, B 6-16, C 16-26, D 26-39, E 39-49', $this->told());
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame('A 0-10, B 10-20, C 20-30, D 30-43, E 43-53', $this->told());
    }

    public function test_a_step_that_a_colleague_worked_over_stays_and_says_whose_it_is(): void
    {
        $this->edit(0, self::trim(0, -4))->assertOk();
        $this->actingAs($this->ben);
        $this->edit(1, self::trim(0, 2))->assertOk();
        $this->actingAs($this->rosa);
        $this->postJson($this->at('undo'))
            ->assertStatus(409)
            ->assertJsonPath('message', '"Trim" cannot be taken back: Ben changed the same place of the cut since.');
        self::assertSame('A 0-8, B 8-18, C 18-28, D 28-38, E 38-48', $this->told());
    }

    public function test_a_named_version_is_kept_whole_and_going_back_to_it_is_a_step(): void
    {
        $this->edit(0, self::trim(0, -4))->assertOk();
        $version = $this->postJson($this->at("sequences/{$this->cut->ulid}/versions"), ['name' => 'For Ines'])
            ->assertCreated()
            ->json('ulid');
        $this->edit(1, ['op' => 'extract', 'from_ticks' => 0, 'to_ticks' => 30])->assertOk();
        $this->postJson($this->at("sequences/{$this->cut->ulid}/versions/$version"))->assertOk();
        self::assertSame('A 0-6, B 6-16, C 16-26, D 26-36, E 36-46', $this->told());
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame('D 0-6, E 6-16', $this->told(), 'and is taken back like any other');
    }

    public function test_where_a_clip_is_used_follows_every_step_and_a_removed_cut_uses_nothing(): void
    {
        $clip = $this->clip('A001C001', 'A', 0);
        $uses = fn(): array => array_column($this->getJson($this->at("clips/$clip->ulid/uses"))->assertOk()->json('uses'), 'times', 'name');
        $item = [
            'source' => ['id' => $clip->ulid, 'name' => 'A001C001', 'duration_ticks' => 100 * self::FRAME],
            'source_start_ticks' => 0,
            'duration_ticks' => 10 * self::FRAME,
        ];
        self::assertSame([], $uses());
        $this->edit(0, ['op' => 'append', 'track' => 0, 'item' => $item], 'Append')->assertOk();
        $this->edit(1, ['op' => 'split', 'track' => 0, 'at_ticks' => 53])->assertOk();
        self::assertSame(['Reel' => 2], $uses());
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(['Reel' => 1], $uses());
        $this->deleteJson($this->at("sequences/{$this->cut->ulid}"))->assertOk();
        self::assertSame([], $uses());
        $this->getJson($this->at("sequences/{$this->cut->ulid}"))->assertNotFound();
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(['Reel' => 1], $uses(), 'and comes back with all its steps');
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame([], $uses());
    }

    public function test_an_edit_of_two_thousand_items_writes_less_than_twenty_kilobytes(): void
    {
        $this->cut = StoredSequenceFactory::new()
            ->showing(array_map(static fn(int $n): string => "clip $n", range(1, 2000)))
            ->createOne(['production_id' => $this->production->id]);
        $written = 0;
        DB::listen(static function ($query) use (&$written): void {
            if (preg_match('/\A(insert|update|delete)/i', $query->sql) === 1) {
                $written +=
                    strlen($query->sql) + array_sum(array_map(static fn(mixed $one): int => strlen((string) $one), $query->bindings));
            }
        });
        $this->edit(0, self::trim(3, -2))->assertOk();
        self::assertLessThan(20_000, $written);
        self::assertSame(2000, $this->cut->refresh()->items);
    }

    public function test_a_cut_whose_maker_takes_it_back_stays_when_a_colleague_worked_on_it(): void
    {
        $take = $this->take('3', 1);
        $this->clip('A001C001', 'A', 0, 10, $take, ['proxied_at' => now()]);
        $ulid = $this->postJson($this->onDay('reels'), ['circled_only' => false])
            ->assertCreated()
            ->json('ulid');
        $this->cut = StoredSequence::query()->where('ulid', $ulid)->sole();
        $this->edit(0, self::trim(0, -10), 'Shorter')->assertOk();
        $this->postJson($this->at('undo'))->assertOk();
        $this->postJson($this->at('undo'))->assertOk()->assertJsonPath('label', 'Build the reel Day 1, all takes');
        $this->getJson($this->at("reels/$ulid"))->assertNotFound();
        $this->postJson($this->at('redo'))->assertOk();
        $this->postJson($this->at('redo'))->assertOk();
        self::assertSame(240, $this->cut->refresh()->running_ticks / self::FRAME, 'made again with what was done to it');
        self::assertSame(
            1,
            Clip::query()
                ->whereIn('id', DB::table('sequence_uses')->where('sequence_id', $this->cut->id)->select('clip_id'))
                ->count(),
        );
        $this->postJson($this->at('undo'))->assertOk();
        $this->actingAs($this->ben);
        $this->edit($this->cut->refresh()->step, self::trim(0, -5))->assertOk();
        $this->actingAs($this->rosa);
        $this->postJson($this->at('undo'))->assertStatus(409);
        self::assertSame(245, $this->cut->refresh()->running_ticks / self::FRAME);
    }
}
