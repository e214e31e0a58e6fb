<?php

declare(strict_types=1);

namespace Tests\App\Lineup;

use App\Domain\Footage\MediaFolder;
use App\Domain\Lineup\PlaceClips;
use App\Domain\Lineup\Scope;
use App\Models\Clip;
use App\Models\Placement;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\Ticks;
use Tests\App\TestCase;

/** A recorder that writes no timecode: each of its files and what ran with it hang together, and on nothing else. */
final class GroupsTest extends TestCase
{
    /** @var array<string, Clip> */
    private array $clips = [];

    protected function setUp(): void
    {
        parent::setUp();
        $this->as();
        foreach ([[1, '10:00:00', 71], [2, '10:30:00', 72]] as [$number, $recorded, $seed]) {
            $stage = Noise::speech(30, $seed);
            $this->clips["S$number"] = $this->guided("S$number", 'S', $stage, "2026-10-05T{$recorded}Z");
            $this->clips["A$number"] = $this->guided("A$number", 'A', array_slice($stage, 40_000, 120_000), "2026-10-05T{$recorded}Z");
        }
    }

    /** @param  list<int>  $samples */
    private function guided(string $name, string $device, array $samples, string $recorded): Clip
    {
        $clip = $this->clip(
            $name,
            $device,
            0,
            count($samples) / 8000,
            more: [
                'start_ticks' => null,
                'recorded_at' => $recorded,
                'channels' => [['index' => 1, 'name' => 'Ch 1', 'function' => null]],
            ],
        );
        mkdir(MediaFolder::of($clip)->folder(), 0777, true);
        file_put_contents(MediaFolder::of($clip)->folder() . '/guide', pack('s*', ...$samples));

        return $clip;
    }

    private function lineUp(?Scope $scope = null): void
    {
        app(PlaceClips::class)($this->day, ['sound', 'timecode'], static function (): void {}, $scope);
    }

    private function placeOf(string $name): Placement
    {
        return $this->clips[$name]->placement()->sole();
    }

    private function seconds(string $name): float
    {
        return $this->placeOf($name)->start_ticks / Ticks::PER_SECOND;
    }

    public function test_what_hangs_together_lies_where_its_dates_say_and_says_so_on_the_map_and_on_the_day_sheet(): void
    {
        $this->lineUp();
        self::assertSame([0, 0, 1, 1], array_map(fn(string $name): ?int => $this->placeOf($name)->group, ['S1', 'A1', 'S2', 'A2']));
        self::assertEqualsWithDelta(5.0, $this->seconds('A2') - $this->seconds('S2'), 0.01, 'sound ties them to each other');
        self::assertEqualsWithDelta(1800.0, $this->seconds('S2') - $this->seconds('S1'), 6.0, 'and dates lay both half an hour later');
        $page = $this->getJson($this->onDay('lineup'))->assertOk();
        self::assertEquals(
            ['S1' => null, 'A1' => null, 'S2' => 'date', 'A2' => 'date'],
            array_column($page->json('placements'), 'laid_by', 'name'),
        );
        $this->getJson($this->onDay('sheet'))
            ->assertOk()
            ->assertJsonFragment(['title' => 'S2 and 1 more lie by their dates']);
    }

    public function test_one_tie_by_hand_brings_the_whole_group_and_is_taken_back_as_one(): void
    {
        $this->lineUp();
        $before = [$this->seconds('S2'), $this->seconds('A2')];
        $a2 = $this->clips['A2'];
        // Its second 1 is second 21 of the first recording.
        $tie = fn() => $this->postJson($this->at("clips/$a2->ulid/place"), [
            'against' => $this->clips['A1']->ulid,
            'against_ticks' => 100 * Ticks::PER_SECOND,
            'own_ticks' => Ticks::PER_SECOND,
            'was_ticks' => $this->placeOf('A2')->start_ticks,
        ]);
        $tie()->assertOk();
        self::assertEqualsWithDelta($this->seconds('A1') + 99, $this->seconds('A2'), 0.001);
        self::assertEqualsWithDelta(5.0, $this->seconds('A2') - $this->seconds('S2'), 0.01, 'its recording came along');
        self::assertSame([0, 0], [$this->placeOf('S2')->group, $this->placeOf('A2')->group]);
        self::assertNull($this->placeOf('S2')->evidence['laid_by'] ?? null);
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame([1, 1], [$this->placeOf('S2')->group, $this->placeOf('A2')->group]);
        self::assertEqualsWithDelta($before, [$this->seconds('S2'), $this->seconds('A2')], 0.001);
        $tie()->assertOk();
        $this->lineUp();
        self::assertEqualsWithDelta($this->seconds('A1') + 99, $this->seconds('A2'), 0.001, 'a later run leaves it there');
        self::assertSame(0, $this->placeOf('S2')->group, 'and what sound ties to it');
    }

    public function test_a_run_of_one_clip_keeps_it_with_its_group_and_takes_no_date_for_a_tie(): void
    {
        $this->lineUp();
        $where = $this->seconds('A2');
        $this->lineUp(Scope::of($this->day, 'clips', '', [$this->clips['A2']->ulid]));
        self::assertSame(1, $this->placeOf('A2')->group);
        self::assertEqualsWithDelta($where, $this->seconds('A2'), 0.001);
    }

    public function test_a_nudge_of_a_clip_that_only_a_date_lays_is_kept_by_later_runs(): void
    {
        $this->lineUp();
        $apart = $this->seconds('A2') - $this->seconds('S2');
        $this->postJson($this->at("clips/{$this->clips['A2']->ulid}/nudge"), ['unit' => 'frame', 'by' => 2])->assertOk();
        $this->lineUp();
        self::assertEqualsWithDelta($apart + 0.08, $this->seconds('A2') - $this->seconds('S2'), 0.001);
        self::assertSame(1, $this->placeOf('A2')->group);
    }

    public function test_nothing_is_laid_under_a_picture_of_another_group(): void
    {
        $this->lineUp();
        $this->placeOf('S2')->update(['start_ticks' => $this->placeOf('S1')->start_ticks]);
        $playlist = $this->getJson($this->at("clips/{$this->clips['A1']->ulid}/playlist"))->assertOk();
        self::assertSame([$this->clips['S1']->ulid], array_values(array_unique(array_column($playlist->json('sounds'), 'clip'))));
    }
}
