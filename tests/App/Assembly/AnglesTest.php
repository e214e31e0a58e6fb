<?php

declare(strict_types=1);

namespace Tests\App\Assembly;

use App\Models\Clip;
use App\Models\Role;
use Cartella\Core\Time\Ticks;
use Tests\App\TestCase;

/** An event of two cameras that stop and start, against one recording, cut between them. */
final class AnglesTest extends TestCase
{
    private const S = Ticks::PER_SECOND;

    /** @var array<string, Clip> */
    private array $clips = [];

    private string $cut;

    protected function setUp(): void
    {
        parent::setUp();
        // A rolls 0-30 and 40-60, B 10-50, the recorder all along.
        foreach (['A1' => [0, 30], 'A2' => [40, 20], 'B1' => [10, 40], 'S1' => [-2, 70]] as $name => [$at, $seconds]) {
            $this->clips[$name] = $this->clip($name, $name[0], 1000 + $at, $seconds, null, [
                'proxied_at' => now(),
                'channels' => [['index' => 1, 'name' => 'mix']],
            ]);
            $this->place($this->clips[$name], 1000 + $at);
        }
        $events = $this->as()->getJson($this->onDay('events'))->assertOk()->json('events');
        self::assertSame(
            [['S1', ['A', 'B'], 3]],
            array_map(static fn(array $one): array => [$one['label'], $one['letters'], $one['clips']], $events),
        );
        $this->cut = $this->postJson($this->onDay('angle-cuts'), ['event' => $events[0]['key']])
            ->assertCreated()
            ->json('ulid');
    }

    private function turn(
        float $from,
        float $to,
        string $angle,
        string $takes = 'picture',
        array $more = [],
    ): \Illuminate\Testing\TestResponse {
        return $this->postJson($this->at("sequences/$this->cut/turn"), [
            'from_ticks' => (int) ($from * self::S),
            'to_ticks' => (int) ($to * self::S),
            'angle' => $angle,
            'takes' => $takes,
            ...$more,
        ]);
    }

    /** @return list<string> `A1 0-10 @0` in seconds */
    private function told(int $track = 0, ?string $cut = null): array
    {
        return array_map(
            static fn(array $item): string => sprintf(
                '%s %d-%d @%d',
                $item['source']['name'],
                $item['record_start_ticks'] / self::S,
                ($item['record_start_ticks'] + $item['duration_ticks']) / self::S,
                $item['source_start_ticks'] / self::S,
            ),
            $this->getJson($this->at('sequences/' . ($cut ?? $this->cut)))
                ->assertOk()
                ->json("value.tracks.$track.items"),
        );
    }

    public function test_cuts_are_laid_where_cameras_rolled_and_the_sound_of_the_whole_stays(): void
    {
        $this->turn(0, 60, 'A')->assertOk();
        $this->turn(12, 60, 'B')->assertOk();
        $this->turn(20, 60, 'A')->assertOk();
        self::assertSame(['A1 0-12 @0', 'B1 12-20 @2', 'A1 20-30 @20', 'B1 30-50 @20'], $this->told(), 'as far as a camera rolls');
        self::assertSame(['S1 0-60 @2'], $this->told(1));
        $this->turn(32, 34, 'A')
            ->assertStatus(422)
            ->assertJsonPath('code', 'angles.not_rolling')
            ->assertJsonPath('message', 'A was not rolling there.');
        $this->turn(41, 44, 'A', 'both')->assertOk();
        self::assertSame(['S1 0-41 @2', 'A2 41-44 @1', 'S1 44-60 @46'], $this->told(1));
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(['S1 0-60 @2'], $this->told(1));
        $wall = $this->getJson($this->at("sequences/$this->cut/wall"))->assertOk();
        self::assertSame(
            [['A', [[0, 30], [40, 20]]], ['B', [[10, 40]]]],
            array_map(
                static fn(array $angle): array => [
                    $angle['letter'],
                    array_map(
                        static fn(array $one): array => [$one['at_ticks'] / self::S, $one['duration_ticks'] / self::S],
                        $angle['pictures'],
                    ),
                ],
                $wall->json('angles'),
            ),
        );
    }

    public function test_a_piece_that_goes_on_with_the_camera_before_it_is_one_with_it_again(): void
    {
        $this->turn(0, 60, 'A')->assertOk();
        $this->turn(12, 60, 'B')->assertOk();
        $this->turn(20, 30, 'A')->assertOk();
        $this->turn(24, 30, 'B')->assertOk();
        self::assertSame(['A1 0-12 @0', 'B1 12-20 @2', 'A1 20-24 @20', 'B1 24-50 @14'], $this->told());
        $this->turn(20, 24, 'B')->assertOk();
        self::assertSame(['A1 0-12 @0', 'B1 12-50 @2'], $this->told());
        $this->turn(12, 50, 'A')->assertOk();
        self::assertSame(['A1 0-30 @0', 'B1 30-50 @20'], $this->told(), 'as far as the camera rolls');
    }

    public function test_what_was_cut_knows_its_angles_wherever_it_is_laid(): void
    {
        $this->turn(5, 60, 'A')->assertOk();
        $this->turn(15, 60, 'B')->assertOk();
        $into = $this->postJson($this->at('cuts'), ['name' => 'Scene 21'])->json('ulid');
        $this->postJson($this->at("sequences/$this->cut/lay"), ['into' => $into, 'at_ticks' => null])
            ->assertOk()
            ->assertJsonPath('end_ticks', 45 * self::S);
        self::assertSame(['A1 0-10 @5', 'B1 10-45 @5'], $this->told(0, $into));
        self::assertSame(['S1 0-45 @7'], $this->told(3, $into));
        $edit = fn(int $step, array $op): \Illuminate\Testing\TestResponse => $this->postJson($this->at("sequences/$into/edit"), [
            'step' => $step,
            'label' => 'Other angle',
            'operations' => [['from_ticks' => 12 * self::S, 'to_ticks' => 14 * self::S] + $op],
        ]);
        $edit(1, ['op' => 'angle', 'takes' => 'picture', 'angle' => 'A'])->assertOk();
        self::assertSame(['A1 0-10 @5', 'B1 10-12 @5', 'A1 12-14 @17', 'B1 14-45 @9'], $this->told(0, $into));
        $edit(2, ['op' => 'plain'])->assertOk();
        $edit(3, ['op' => 'angle', 'takes' => 'picture', 'angle' => 'B'])->assertStatus(422);
        $edit(3, ['op' => 'angled'])->assertOk();
        $edit(4, ['op' => 'angle', 'takes' => 'picture', 'angle' => 'B'])->assertOk();
    }

    public function test_of_a_camera_file_over_two_takes_each_take_is_an_event_of_its_own_stretch(): void
    {
        foreach ([['7', 12, 20], ['8', 22, 29]] as [$setup, $from, $to]) {
            $take = $this->take($setup, 1);
            foreach (['A1' => 0, 'B1' => 10] as $name => $began) {
                $this->clips[$name]->parts()->create([
                    'take_id' => $take->id,
                    'said_by' => 'name',
                    'in_ticks' => ($from - $began) * self::S,
                    'out_ticks' => ($to - $began) * self::S,
                ]);
            }
        }
        $events = array_column($this->getJson($this->onDay('events'))->assertOk()->json('events'), null, 'label');
        self::assertSame(
            [[1012, 1020], [1022, 1029]],
            array_map(
                static fn(string $label): array => [intdiv($events[$label]['from'], self::S), intdiv($events[$label]['to'], self::S)],
                ['7/1', '8/1'],
            ),
        );
        // One whose camera has another clock is no event: nothing says what it saw at the same moment.
        $this->clips['B1']->placement()->update(['group' => 5]);
        self::assertSame([], $this->getJson($this->onDay('events'))->json('events'));
    }

    public function test_two_people_at_one_event(): void
    {
        $this->turn(0, 60, 'A')->assertOk();
        $this->turn(15, 25, 'B', more: ['step' => 1])->assertOk();
        $this->as();
        $this->turn(18, 28, 'B', more: ['step' => 1])->assertStatus(409);
        // What is on air where they look already changes nothing, and meets nobody.
        $this->turn(16, 20, 'A', more: ['step' => 1])->assertOk()->assertJsonPath('step', null);
        $this->as(Role::Reviewer);
        $this->turn(16, 20, 'A')->assertForbidden();
    }

    public function test_a_day_without_several_cameras_has_no_event_and_a_cut_is_no_wall(): void
    {
        $this->clips['B1']->placement()->delete();
        self::assertSame([], $this->getJson($this->onDay('events'))->json('events'));
        $this->postJson($this->onDay('angle-cuts'), ['event' => 'take:nothing'])->assertNotFound();
        $cut = $this->postJson($this->at('cuts'), ['name' => 'x'])->json('ulid');
        $this->getJson($this->at("sequences/$cut/wall"))->assertStatus(422)->assertJsonPath('code', 'angles.none');
    }
}
