<?php

declare(strict_types=1);

namespace Tests\App\Lineup;

use App\Domain\Footage\MediaFolder;
use App\Domain\Lineup\PlaceClips;
use App\Models\Card;
use App\Models\Clip;
use App\Models\ClockOffset;
use App\Models\Device;
use App\Models\LineupRun;
use App\Models\Placement;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Facades\DB;
use Tests\App\TestCase;

/** Runs over a part of a day, what a person decides about a place, and going back; on guide sound as cataloguing leaves it. */
final class RunsTest extends TestCase
{
    private const SECOND = Ticks::PER_SECOND;

    /** @var list<int> */
    private array $stage;

    /** @var array<string, Clip> */
    private array $clips = [];

    protected function setUp(): void
    {
        parent::setUp();
        $this->as();
        $this->stage = Noise::speech(50, 33);
        $this->guided('S1', 'S', 1000, 0, 50);
        $this->guided('A1', 'A', 1003, 5, 10, 'A001');
        $this->guided('A2', 'A', 1023, 25, 10, 'A002');
        $this->guided('B1', 'B', 1006, 6, 12, 'B001');
    }

    private function guided(string $name, string $device, float $clock, int $from, int $seconds, ?string $roll = null): Clip
    {
        $clip = $this->clip($name, $device, $clock, $seconds);
        mkdir(MediaFolder::of($clip)->folder(), 0777, true);
        file_put_contents(
            MediaFolder::of($clip)->folder() . '/guide',
            pack('s*', ...array_slice($this->stage, 8000 * $from, 8000 * $seconds)),
        );
        if ($roll !== null) {
            $clip->update([
                'card_id' => Card::query()->create([
                    'production_id' => $this->production->id,
                    'shoot_day_id' => $this->day->id,
                    'roll' => $roll,
                    'volume' => $roll,
                    'state' => 'verified',
                ])->id,
            ]);
        }

        return $this->clips[$name] = $clip;
    }

    /** @param  array<string, mixed>  $what */
    private function lineUp(array $what = []): void
    {
        $this->postJson($this->onDay('lineup'), $what)->assertStatus(202);
    }

    private function placed(string $name): Placement
    {
        return Placement::query()->where('clip_id', $this->clips[$name]->id)->sole();
    }

    private function seconds(string $name): ?float
    {
        $ticks = $this->placed($name)->start_ticks;

        return $ticks === null ? null : $ticks / self::SECOND;
    }

    public function test_a_card_is_lined_up_beside_what_lies_there_and_nothing_else_moves(): void
    {
        $this->lineUp();
        $this->placed('A1')->update(['start_ticks' => 500 * self::SECOND, 'way' => 'clock']);
        $this->placed('B1')->update(['start_ticks' => null, 'group' => null]);
        $this->lineUp(['scope' => 'card', 'key' => 'B001']);
        self::assertEqualsWithDelta(1006.0, $this->seconds('B1'), 0.02);
        self::assertSame(500.0, $this->seconds('A1'));
        $this->getJson($this->onDay('lineup/runs'))
            ->assertJsonPath('runs.0.scope', 'card B001')
            ->assertJsonPath('runs.0.placed', 1)
            ->assertJsonPath('runs.1.number', 1);
        $this->lineUp(['scope' => 'clips', 'clips' => [$this->clips['A1']->ulid]]);
        self::assertEqualsWithDelta(1005.0, $this->seconds('A1'), 0.02);
        $this->postJson($this->onDay('lineup'), ['scope' => 'card', 'key' => 'Z999'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'lineup.scope');
        $this->postJson($this->onDay('lineup'), ['ways' => ['sound', 'magic']])->assertStatus(422);
    }

    public function test_a_run_whose_worker_was_killed_goes_on_with_what_it_had_compared(): void
    {
        $journal = $this->folder . '/journal.jsonl';
        $place = fn(callable $progress): array => app(PlaceClips::class)($this->day, ['sound'], $progress, journal: $journal);
        try {
            $place(static fn(int $done) => $done === 2 ? throw new \RuntimeException('killed') : null);
            self::fail('It was not killed.');
        } catch (\RuntimeException) {
            self::assertCount(3, file($journal) ?: []);
        }
        // What was compared before is not asked of the sound again: with other sound in its place the find would be another.
        $guide = MediaFolder::of($this->clips['A1'])->folder() . '/guide';
        $time = filemtime($guide);
        file_put_contents($guide, pack('s*', ...array_slice($this->stage, 8000 * 30, 8000 * 10)));
        touch($guide, (int) $time);
        $place(static fn(): null => null);
        self::assertEqualsWithDelta(1005.0, $this->seconds('A1'), 0.02);
        self::assertEqualsWithDelta(1006.0, $this->seconds('B1'), 0.02);
    }

    public function test_places_that_a_run_finds_are_told_with_the_event(): void
    {
        $this->lineUp();
        $found = DB::table('events')
            ->where('topic', 'lineup')
            ->pluck('facts')
            ->flatMap(static fn(string $facts): array => json_decode($facts, true)['found'] ?? []);
        self::assertEqualsWithDelta(1005.0, $found[$this->clips['A1']->ulid]['start_ticks'] / self::SECOND, 0.02);
        self::assertCount(3, $found);
    }

    public function test_the_anchor_can_be_chosen_and_its_clock_counts_then(): void
    {
        $this->lineUp(['anchor' => $this->clips['A1']->ulid]);
        self::assertSame(1003.0, $this->seconds('A1'));
        self::assertEqualsWithDelta(998.0, $this->seconds('S1'), 0.02);
    }

    public function test_two_runs_are_compared_and_one_is_gone_back_to_but_not_over_what_a_person_locked(): void
    {
        $this->lineUp();
        $before = $this->placed('B1')->start_ticks;
        file_put_contents(
            MediaFolder::of($this->clips['B1'])->folder() . '/guide',
            pack('s*', ...array_slice($this->stage, 8000 * 20, 8000 * 12)),
        );
        file_put_contents(
            MediaFolder::of($this->clips['A2'])->folder() . '/guide',
            pack('s*', ...array_slice($this->stage, 8000 * 30, 8000 * 10)),
        );
        $this->lineUp();
        self::assertEqualsWithDelta(1020.0, $this->seconds('B1'), 0.02);
        [$first, $second] = LineupRun::query()->orderBy('number')->get()->all();
        $rows = $this->getJson($this->at("lineup-runs/$first->ulid?with=$second->ulid"))->json('rows');
        self::assertSame(['B1', 'A2'], array_column($rows, 'name'));
        self::assertEqualsWithDelta(14 * self::SECOND, $rows[0]['moved_ticks'], 0.02 * self::SECOND);
        self::assertSame([], $this->getJson($this->at("lineup-runs/$second->ulid"))->json('rows'), 'nothing was changed since the second');
        $this->postJson($this->at("clips/{$this->clips['A2']->ulid}/lock"), ['locked' => true])->assertOk();
        $this->postJson($this->at("lineup-runs/$first->ulid/back"))
            ->assertOk()
            ->assertExactJson(['moved' => 1, 'kept' => 1]);
        self::assertSame($before, $this->placed('B1')->start_ticks);
        self::assertEqualsWithDelta(1030.0, $this->seconds('A2'), 0.02);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Go back to run 1 of line-up');
        self::assertEqualsWithDelta(1020.0, $this->seconds('B1'), 0.02);
    }

    public function test_a_clip_is_placed_by_a_frame_and_a_point_locked_there_kept_by_later_runs_and_taken_back(): void
    {
        $silent = $this->clips['mos'] = $this->clip('mos', 'B', 40, 4);
        $this->lineUp(['ways' => ['sound']]);
        self::assertNull($this->seconds('mos'));
        $body = ['against' => $this->clips['S1']->ulid, 'against_ticks' => 40 * self::SECOND, 'frame' => 25, 'was_ticks' => null];
        $this->postJson($this->at("clips/$silent->ulid/place"), $body)->assertOk();
        self::assertSame(1038.98, $this->seconds('mos'), 'the moment is taken to lie in the middle of the frame');
        $this->postJson($this->at("clips/$silent->ulid/place"), $body)
            ->assertStatus(409)
            ->assertJsonPath('context.fields.0.field', 'start_ticks');
        $this->lineUp(['ways' => ['sound', 'timecode']]);
        self::assertSame([1038.98, 'hand', true], [$this->seconds('mos'), $this->placed('mos')->way, $this->placed('mos')->is_sure]);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Place mos by hand');
        $this->postJson($this->at("clips/{$this->clips['A2']->ulid}/place"), [
            'against' => $this->clips['S1']->ulid,
            'against_ticks' => 6 * self::SECOND,
            'frame' => 0,
            'was_ticks' => $this->placed('A2')->start_ticks,
        ])
            ->assertStatus(422)
            ->assertJsonPath('code', 'lineup.overlap');
    }

    public function test_a_place_that_was_nudged_is_kept_by_later_runs_until_the_nudge_is_taken_back(): void
    {
        $this->lineUp();
        $before = $this->seconds('B1');
        $this->postJson($this->at("clips/{$this->clips['B1']->ulid}/nudge"), ['unit' => 'frame', 'by' => 2])->assertOk();
        $this->lineUp(['cut' => false]);
        self::assertEqualsWithDelta($before + 0.08, $this->seconds('B1'), 0.000_1);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Nudge B1');
        $this->lineUp(['cut' => false]);
        self::assertEqualsWithDelta($before, $this->seconds('B1'), 0.000_1);
    }

    public function test_a_song_that_is_played_twice_has_a_second_place_that_can_be_tried_and_tried_back(): void
    {
        $song = array_slice($this->stage, 0, 80_000);
        $this->stage = [...$song, ...Noise::speech(10, 34), ...$song, ...Noise::speech(20, 35)];
        file_put_contents(MediaFolder::of($this->clips['S1'])->folder() . '/guide', pack('s*', ...$this->stage));
        file_put_contents(MediaFolder::of($this->clips['B1'])->folder() . '/guide', pack('s*', ...array_slice($song, 8000, 64_000)));
        $this->lineUp();
        $was = $this->seconds('B1');
        self::assertFalse($this->placed('B1')->is_sure);
        $try = fn() => $this->postJson($this->at("clips/{$this->clips['B1']->ulid}/second"), [
            'was_ticks' => $this->placed('B1')->start_ticks,
        ]);
        $try()->assertOk();
        $places = [$was, $this->seconds('B1')];
        sort($places);
        self::assertEqualsWithDelta([1001.0, 1021.0], $places, 0.02);
        $try()->assertOk();
        self::assertSame($was, $this->seconds('B1'));
        $this->postJson($this->at("clips/{$this->clips['S1']->ulid}/second"), ['was_ticks' => 3])
            ->assertStatus(422)
            ->assertJsonPath('code', 'lineup.second');
    }

    public function test_a_clip_that_was_taken_out_stays_out_until_it_is_let_in_again(): void
    {
        $this->lineUp();
        $this->postJson($this->at("clips/{$this->clips['B1']->ulid}/leave-out"), ['out' => true])->assertOk();
        $this->lineUp();
        self::assertNull($this->seconds('B1'));
        $this->getJson($this->onDay('lineup'))
            ->assertJsonPath('strays.0.left_out', true)
            ->assertJsonPath('strays.0.steps', ['back']);
        $this->postJson($this->at("clips/{$this->clips['B1']->ulid}/leave-out"), ['out' => false])->assertOk();
        $this->lineUp();
        self::assertEqualsWithDelta(1006.0, $this->seconds('B1'), 0.02);
    }

    public function test_the_order_of_the_lanes_is_kept_with_the_devices_and_can_be_undone(): void
    {
        $order = fn(): array => array_column($this->getJson($this->at(''))->json('devices'), 'letter');
        $was = $this->getJson($this->at(''))->json('devices.*.letter');
        $this->putJson($this->at('lanes'), ['letters' => array_reverse($was)])->assertOk();
        self::assertSame(array_reverse($was), $order());
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Order the lanes');
        self::assertSame($was, $order());
    }

    public function test_a_learned_clock_is_applied_to_the_day_or_to_the_device_for_good(): void
    {
        $this->lineUp();
        $device = $this->devices['A'];
        $this->postJson($this->onDay('clock'), ['device' => 'A', 'for' => 'day'])->assertOk();
        self::assertEqualsWithDelta(2.0, ClockOffset::query()->where('device_id', $device->id)->sole()->applied_ticks / self::SECOND, 0.02);
        $this->postJson($this->onDay('clock'), ['device' => 'A', 'for' => 'device'])->assertOk();
        self::assertEqualsWithDelta(2.0, Device::query()->find($device->id)->clock_ticks / self::SECOND, 0.02);
        self::assertNull(ClockOffset::query()->where('device_id', $device->id)->sole()->applied_ticks);
        $this->postJson($this->onDay('clock'), ['device' => 'S', 'for' => 'day'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'clock.unknown');
    }

    public function test_what_is_found_surely_is_seen_before_the_run_is_over_and_survives_a_stop(): void
    {
        $seen = [];
        try {
            app(\App\Domain\Lineup\PlaceClips::class)($this->day, ['sound'], static function (int $done) use (&$seen): void {
                $seen[] = Placement::query()->whereNotNull('start_ticks')->count();
                if ($done === 2) {
                    throw new \RuntimeException('stopped');
                }
            });
        } catch (\RuntimeException) {
        }
        self::assertSame([1, 2], $seen);
        $this->lineUp();
        self::assertSame(4, Placement::query()->whereNotNull('start_ticks')->count());
    }
}
