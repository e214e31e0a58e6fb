<?php

declare(strict_types=1);

namespace Tests\App\Cards;

use App\Domain\Cards\ClipCheck;
use Cartella\Core\Time\Ticks;
use Tests\App\TestCase;

final class ClipCheckTest extends TestCase
{
    /** @return list<string> */
    private function titles(): array
    {
        return array_column(app(ClipCheck::class)->of($this->day)['differences'], 'title');
    }

    public function test_counts_and_running_times_stand_side_by_side_in_the_order_of_lanes(): void
    {
        $this->clip('A1', 'A', 100, 20);
        $this->clip('A2', 'A', 200, 30);
        $this->clip('S1', 'S', 90, 150);
        $devices = app(ClipCheck::class)->of($this->day)['devices'];
        self::assertSame([['A', 2], ['S', 1]], array_map(static fn(array $one): array => [$one['device'], $one['clips']], $devices));
        self::assertSame(230 * Ticks::PER_SECOND, $devices[0]['last_ticks']);
        self::assertSame([], $this->titles(), 'one long recording beside two clips is no difference');
    }

    public function test_a_clip_that_nothing_runs_beside_is_an_open_point_with_the_place(): void
    {
        foreach ([100, 200, 300] as $at) {
            $this->clip("A$at", 'A', $at, 20);
            $at === 200 || $this->clip("B$at", 'B', $at + 2, 20);
        }
        self::assertSame(['B shows nothing for 1 clip of A'], $this->titles());
        $points = $this->as()->getJson($this->onDay('sheet'))->json('points');
        self::assertStringContainsString(
            'A: 3 clips, 1:00. B: 2 clips, 0:40. Nothing of B beside A200 (00:03:20).',
            $points[0]['evidence'],
        );
        $this->postJson($this->onDay('points'), ['key' => $points[0]['key'], 'fix' => 'settle'])->assertSuccessful();
        self::assertSame([], $this->getJson($this->onDay('sheet'))->json('points'));
        $this->clip('A400', 'A', 400, 20);
        self::assertCount(1, $this->getJson($this->onDay('sheet'))->json('points'), 'another clip raises it again');
    }

    public function test_what_the_log_explains_is_not_told_again(): void
    {
        $this->clip('A1', 'A', 100, 20);
        $this->clip('A2', 'A', 200, 20, $this->take('3', 1));
        $this->clip('A3', 'A', 300, 20, more: ['is_false_start' => true]);
        $this->clip('A4', 'A', 400, 20, more: ['is_wild' => true]);
        $this->clip('B1', 'B', 100, 20);
        self::assertSame([], $this->titles());
    }

    public function test_as_many_clips_of_other_lengths_are_told(): void
    {
        $this->clip('A1', 'A', 100, 60);
        $this->clip('B1', 'B', 100, 30);
        self::assertSame(['B ran shorter than A'], $this->titles());
    }

    public function test_a_device_whose_clips_carry_no_time_is_not_blamed(): void
    {
        $this->clip('A1', 'A', 100, 20);
        $this->clip('A2', 'A', 200, 20);
        $this->clip('B1', 'B', 100, 20, more: ['start_ticks' => null]);
        self::assertSame([], $this->titles());
    }
}
