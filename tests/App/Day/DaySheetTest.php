<?php

declare(strict_types=1);

namespace Tests\App\Day;

use App\Models\Card;
use App\Models\CardCopy;
use App\Models\Handoff;
use App\Models\ShootDay;
use App\Models\Task;
use Cartella\Core\Time\Ticks;
use Database\Factories\CardFactory;
use Database\Factories\StoredSequenceFactory;
use Illuminate\Testing\TestResponse;
use Tests\App\TestCase;

final class DaySheetTest extends TestCase
{
    private function sheet(): TestResponse
    {
        return $this->as()->getJson($this->onDay('sheet'))->assertOk();
    }

    private function card(string $roll, int $verified, int $copies): Card
    {
        $card = CardFactory::new()
            ->roll($roll)
            ->createOne(
                $this->ours() + [
                    'state' => $verified === 10 ? 'verified' : 'fault',
                    'files' => 10,
                    'verified_files' => $verified,
                    'size_bytes' => 1000,
                    'verified_at' => $verified === 10 ? now() : null,
                ],
            );
        foreach (array_slice(['one', 'two'], 0, $copies) as $store) {
            CardCopy::query()->create(['card_id' => $card->id, 'store' => $store, 'path' => $roll]);
        }

        return $card;
    }

    public function test_a_card_counts_as_safe_only_when_every_file_is_verified_on_two_volumes(): void
    {
        $this->card('A001', 10, 2);
        $this->card('A002', 9, 2);
        $this->card('A003', 10, 1);
        $sheet = $this->sheet();
        self::assertSame(
            [3, 1, ['A002', 'A003']],
            [$sheet->json('counts.cards'), $sheet->json('counts.cards_safe'), $sheet->json('counts.cards_unsafe')],
        );
        self::assertSame(2000, $sheet->json('counts.bytes_verified'));
    }

    public function test_takes_setups_scenes_circles_and_running_time_are_counted(): void
    {
        foreach (
            [['3', 1, 'ng', 10], ['3A', 1, 'circled', 14], ['3A', 2, 'circled', 20], ['12', 1, 'none', 30]]
            as $index => [$setup, $number, $status, $seconds]
        ) {
            $take = $this->take($setup, $number, ['status' => $status]);
            $this->clip("A$index", 'A', 100 * $index, $seconds, $take);
            $this->clip("B$index", 'B', 100 * $index, $seconds - 2, $take);
        }
        $counts = $this->sheet()->json('counts');
        self::assertSame([4, 3, 2, 2], [$counts['takes'], $counts['setups'], $counts['scenes'], $counts['circled']]);
        self::assertSame(34 * Ticks::PER_SECOND, $counts['circled_ticks'], 'the longest camera of each circled take');
    }

    public function test_mos_wild_and_guide_takes_wait_for_no_sound(): void
    {
        foreach (
            [['3', []], ['3A', ['is_mos' => true]], ['3B', ['is_wild' => true]], ['3C', ['is_guide_only' => true]]]
            as $index => [$setup, $flags]
        ) {
            $this->place($this->clip("A$index", 'A', 100 * $index, 10, $this->take($setup, 1, $flags)), 100 * $index);
        }
        self::assertSame([1, 0], [$this->sheet()->json('counts.to_sync'), $this->sheet()->json('counts.synced')]);
    }

    public function test_who_rolled_when_goes_by_the_place_and_not_by_a_wrong_clock(): void
    {
        $take = $this->take('3', 1);
        $this->place($this->clip('B1', 'B', 90, 10, $take), 100);
        $this->clip('A1', 'A', 100, 10, $take);
        $lanes = array_column($this->sheet()->json('rolled'), 'spans', 'device');
        self::assertSame([100 * Ticks::PER_SECOND, 110 * Ticks::PER_SECOND], array_slice($lanes['B'][0], 0, 2));
        self::assertSame('3/1', $lanes['A'][0][3]);
        self::assertFalse($lanes['A'][0][4]);
    }

    public function test_a_night_shoot_runs_on_past_midnight_once_it_is_lined_up(): void
    {
        $late = $this->clip('A1', 'A', 86_390, 5);
        $early = $this->clip('A2', 'A', 10, 5);
        $this->place($late, 86_390);
        $this->place($early, 86_410);
        $spans = $this->sheet()->json('rolled.0.spans');
        self::assertSame(
            ['A1', 'A2'],
            array_map(fn(array $span): string => \App\Models\Clip::query()->where('ulid', $span[2])->sole()->name, $spans),
        );
    }

    public function test_the_wrap_list_is_ticked_off_step_by_step(): void
    {
        $done = fn(): array => array_column($this->sheet()->json('wrap'), 'done');
        self::assertSame([false, false, false, false, false], $done());
        $this->card('A001', 10, 2);
        $take = $this->take('3', 1, ['is_mos' => true]);
        $this->place($this->clip('A1', 'A', 0, 5, $take), 0);
        StoredSequenceFactory::new()->createOne(['production_id' => $this->production->id, 'shoot_day_id' => $this->day->id]);
        Handoff::query()->create([
            'production_id' => $this->production->id,
            'number' => 1,
            'title' => 'Day 1',
            'chosen' => ['days' => [$this->day->ulid]],
            'folder' => 'x',
            'state' => 'delivered',
            'delivered_at' => now(),
        ]);
        self::assertSame([true, true, true, true, true], $done());
        mkdir($this->folder . '/bench/Z009');
        $sheet = $this->sheet();
        self::assertFalse($sheet->json('wrap.0.done'));
        self::assertStringContainsString('Z009', $sheet->json('wrap.0.note'));
    }

    public function test_nothing_is_ticked_off_or_missing_while_work_runs_that_could_change_it(): void
    {
        $this->card('A001', 10, 2);
        $this->place($this->clip('A1', 'A', 0, 5, $this->take('3', 1, ['is_mos' => true])), 0);
        $this->place($this->clip('A2', 'A', 100, 5, $this->take('3', 2)), 100);
        $read = function (): array {
            $sheet = $this->sheet();

            return [array_column($sheet->json('wrap'), 'done'), array_column($sheet->json('points'), 'title'), $sheet->json('running')];
        };
        $after = [[true, true, true, false, false], ['3/2 has no sound'], []];
        self::assertSame($after, $read());
        $run = Task::query()->create([
            'production_id' => $this->production->id,
            'kind' => 'lineup',
            'title' => 'Line up day 1',
            'state' => 'running',
            'subject' => ['day' => $this->day->id],
        ]);
        self::assertSame([[true, false, false, false, false], [], ['Line up day 1']], $read(), 'its sound may just not have its place yet');
        $other = ShootDay::query()->create(['production_id' => $this->production->id, 'number' => 9, 'date' => '2026-10-20']);
        $run->update(['subject' => ['day' => $other->id]]);
        self::assertSame($after, $read(), 'a run on another day changes nothing here');
        $run->update(['kind' => 'offload', 'subject' => ['day' => $this->day->id]]);
        self::assertSame([false, false, false, false, false], $read()[0]);
        $run->update(['state' => 'failed', 'ended_at' => now()]);
        self::assertSame($after, $read());
    }
}
