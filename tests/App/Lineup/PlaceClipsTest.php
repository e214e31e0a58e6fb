<?php

declare(strict_types=1);

namespace Tests\App\Lineup;

use App\Domain\Footage\MediaFolder;
use App\Domain\Lineup\PlaceClips;
use App\Models\Clip;
use App\Models\ClockOffset;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\Ticks;
use Tests\App\TestCase;

/** Line-up on guide sound that lies beside the clips, as cataloguing leaves it; no media is decoded. */
final class PlaceClipsTest extends TestCase
{
    /** @var list<int> */
    private array $stage;

    protected function setUp(): void
    {
        parent::setUp();
        $this->stage = Noise::speech(40, 21);
        $this->guided('S1', 'S', 1000, 0, 40);
    }

    /**
     * @param  float  $clock  its own start, seconds since midnight
     * @param  int  $from  seconds into the stage
     */
    private function guided(string $name, string $device, float $clock, int $from, int $seconds): Clip
    {
        $clip = $this->clip($name, $device, $clock, $seconds);
        mkdir(MediaFolder::of($clip)->folder(), 0777, true);
        file_put_contents(
            MediaFolder::of($clip)->folder() . '/guide',
            pack('s*', ...array_slice($this->stage, 8000 * $from, 8000 * $seconds)),
        );

        return $clip;
    }

    /** @return array{placed: int, sure: int, strays: int} */
    private function lineUp(string ...$ways): array
    {
        return app(PlaceClips::class)($this->day, $ways === [] ? ['sound', 'timecode'] : array_values($ways), static function (): void {});
    }

    private function starts(Clip $clip): float
    {
        return $clip->placement()->sole()->start_ticks / Ticks::PER_SECOND;
    }

    public function test_places_are_kept_on_the_recorders_time_of_day_and_the_clock_is_learned(): void
    {
        $first = $this->guided('A1', 'A', 1003, 5, 10);
        $second = $this->guided('A2', 'A', 1023, 25, 10);
        self::assertSame(['placed' => 3, 'sure' => 3, 'strays' => 0], $this->lineUp());
        self::assertEqualsWithDelta(1005.0, $this->starts($first), 0.02);
        self::assertEqualsWithDelta(1025.0, $this->starts($second), 0.02);
        $learned = ClockOffset::query()->where('device_id', $this->devices['A']->id)->sole();
        self::assertEqualsWithDelta(2.0, $learned->learned_ticks / Ticks::PER_SECOND, 0.02);
        self::assertNull($learned->applied_ticks, 'a correction is applied by a person only');
    }

    public function test_a_correction_that_was_applied_does_not_make_the_clock_look_right_or_twice_wrong(): void
    {
        $this->guided('A1', 'A', 1003, 5, 10);
        $this->guided('A2', 'A', 1023, 25, 10);
        $this->lineUp();
        $row = ClockOffset::query()->sole();
        $row->update(['applied_ticks' => $row->learned_ticks]);
        $silent = $this->clip('A3', 'A', 1036, 2);
        $this->lineUp();
        self::assertEqualsWithDelta(2.0, $row->refresh()->learned_ticks / Ticks::PER_SECOND, 0.02);
        self::assertEqualsWithDelta(1038.0, $this->starts($silent), 0.05);
        self::assertSame('timecode', $silent->placement()->sole()->way);
    }

    public function test_a_clip_that_nothing_places_is_a_stray_with_a_reason_until_it_finds_a_place(): void
    {
        $silent = $this->clip('A9', 'A', 0, 5, more: ['start_ticks' => null]);
        self::assertSame(1, $this->lineUp()['strays']);
        self::assertSame(
            [null, 'It has no sound.'],
            [$silent->placement()->sole()->start_ticks, $silent->placement()->sole()->stray_reason],
        );
        $silent->update(['start_ticks' => 1010 * Ticks::PER_SECOND]);
        $this->lineUp('timecode');
        self::assertSame([1010.0, null], [$this->starts($silent), $silent->placement()->sole()->stray_reason]);
    }

    public function test_a_file_that_cannot_be_decoded_is_a_stray_with_that_reason_and_the_others_are_placed(): void
    {
        $broken = $this->clip('A1', 'A', 1003, 10, more: ['channels' => [['index' => 1, 'name' => 'Ch 1', 'function' => null]]]);
        $this->guided('B1', 'B', 1006, 6, 12);
        self::assertSame(['placed' => 2, 'sure' => 2, 'strays' => 1], $this->lineUp('sound'));
        self::assertStringStartsWith('Its sound could not be read. Line-up could not read A1:', $broken->placement()->sole()->stray_reason);
    }

    public function test_a_locked_place_and_its_way_outlive_a_new_line_up(): void
    {
        $clip = $this->guided('A1', 'A', 1003, 5, 10);
        $this->lineUp();
        $clip
            ->placement()
            ->sole()
            ->update(['start_ticks' => 1007 * Ticks::PER_SECOND, 'way' => 'hand', 'locked_at' => now()]);
        $this->lineUp();
        self::assertSame([1007.0, 'hand'], [$this->starts($clip), $clip->placement()->sole()->way]);
    }

    public function test_run_twice_it_leaves_what_one_run_leaves(): void
    {
        $this->guided('A1', 'A', 1003, 5, 10);
        $this->lineUp();
        $before = \App\Models\Placement::query()
            ->orderBy('clip_id')
            ->get(['clip_id', 'start_ticks', 'way', 'is_sure'])
            ->toArray();
        $this->lineUp();
        self::assertSame(
            $before,
            \App\Models\Placement::query()
                ->orderBy('clip_id')
                ->get(['clip_id', 'start_ticks', 'way', 'is_sure'])
                ->toArray(),
        );
    }

    public function test_imports_take_no_part(): void
    {
        $music = $this->clip('cue', 'S', 0, 30, more: ['import_kind' => 'music']);
        $this->lineUp();
        self::assertFalse($music->placement()->exists());
    }

    public function test_drift_that_nobody_measured_cannot_be_taken_out(): void
    {
        $clip = $this->guided('A1', 'A', 1003, 5, 10);
        $this->lineUp();
        $this->as()
            ->postJson($this->at("clips/$clip->ulid/drift"), ['applied' => true, 'device' => false])
            ->assertStatus(422)
            ->assertJsonPath('code', 'lineup.drift');
    }

    public function test_a_stray_cannot_be_nudged_and_says_what_to_do(): void
    {
        $clip = $this->clip('A1', 'A', 0);
        $this->as()
            ->postJson($this->at("clips/$clip->ulid/nudge"), ['unit' => 'frame', 'by' => 1])
            ->assertStatus(422)
            ->assertJsonPath('code', 'lineup.stray');
    }
}
