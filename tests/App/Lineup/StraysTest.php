<?php

declare(strict_types=1);

namespace Tests\App\Lineup;

use App\Domain\Footage\MediaFolder;
use App\Domain\Lineup\PlaceClips;
use App\Models\Clip;
use App\Models\LineupRun;
use App\Models\Role;
use App\Models\ShootDay;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Facades\Queue;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\TestCase;

/** Clips without a place and what is offered for them, runs that cannot begin, and people who decide while one goes on. */
final class StraysTest extends TestCase
{
    /** @return array<string, array{string, float, array<string, mixed>, array<string, mixed>|null, list<string>}> */
    public static function strays(): array
    {
        $nothing = ['stray_reason' => 'Nothing can be heard on it.'];

        return [
            'a picture that nobody heard' => ['A', 20, [], $nothing, ['clap', 'hand', 'false_start', 'out']],
            'a picture too short for words' => ['A', 3, [], $nothing, ['false_start', 'clap', 'out']],
            'a false start' => ['A', 20, ['is_false_start' => true], $nothing, ['hand', 'out']],
            'a recording that nobody ran with' => ['S', 20, [], $nothing, ['hand', 'wild', 'out']],
            'one that a person took out' => [
                'A',
                20,
                [],
                ['stray_reason' => 'Taken out.', 'left_out_at' => '2026-10-05 20:00:00'],
                ['back'],
            ],
            'one that came in since the last run' => ['A', 20, [], null, ['lineup', 'out']],
            'one whose device nobody has named' => ['A', 20, ['device_id' => null], null, ['out']],
        ];
    }

    /**
     * @param  array<string, mixed>  $more
     * @param  array<string, mixed>|null  $placement
     * @param  list<string>  $steps
     */
    #[DataProvider('strays')]
    public function test_each_stray_offers_the_step_that_fits_it_first(
        string $device,
        float $seconds,
        array $more,
        ?array $placement,
        array $steps,
    ): void {
        $clip = $this->clip('X001C001', $device, 10, $seconds, more: $more + ($device === 'S' ? ['kind' => 'sound'] : []));
        if ($placement !== null) {
            $clip->placement()->create($placement + ['shoot_day_id' => $this->day->id]);
        }
        $stray = $this->as()->getJson($this->onDay('lineup'))->assertOk()->json('strays.0');
        self::assertSame(['X001C001', $steps], [$stray['name'], $stray['steps']]);
        self::assertNotSame('', $stray['reason']);
    }

    /** @param  array<string, mixed>  $what */
    private function start(array $what): TestResponse
    {
        return $this->postJson($this->onDay('lineup'), $what);
    }

    public function test_a_run_about_nothing_or_by_no_known_way_does_not_begin(): void
    {
        $this->as();
        $this->start([])->assertStatus(422)->assertJsonPath('code', 'lineup.empty');
        $this->clip('A001C001', 'A', 10);
        $this->start(['scope' => 'card', 'key' => 'Z999'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'lineup.scope');
        $this->start(['scope' => 'scene', 'key' => '99'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'lineup.scope');
        $this->start(['scope' => 'clips', 'clips' => []])
            ->assertStatus(422)
            ->assertJsonPath('code', 'lineup.scope');
        foreach ([['magic'], ['sound', 'sound'], [], ['hand']] as $ways) {
            $this->start(['ways' => $ways])->assertStatus(422);
        }
        self::assertSame(0, LineupRun::query()->count());
    }

    public function test_the_anchor_is_a_clip_of_the_same_day(): void
    {
        $this->as();
        $this->clip('A001C001', 'A', 10);
        $other = ShootDay::query()->create(['production_id' => $this->production->id, 'number' => 9, 'date' => '2026-10-19']);
        $elsewhere = $this->clip('S1', 'S', 10, more: ['shoot_day_id' => $other->id]);
        $this->start(['anchor' => $elsewhere->ulid])
            ->assertStatus(422)
            ->assertJsonPath('code', 'lineup.anchor');
    }

    public function test_two_people_cannot_line_up_one_day_at_once_and_a_reviewer_not_at_all(): void
    {
        Queue::fake();
        $this->as();
        $this->clip('A001C001', 'A', 10);
        $this->start([])->assertStatus(202);
        $this->as();
        $this->start([])->assertStatus(422)->assertJsonPath('code', 'lineup.busy');
        $this->as(Role::Reviewer);
        $this->start([])->assertForbidden();
    }

    private function heard(string $name, string $device, float $clock, int $from, int $seconds): Clip
    {
        $clip = $this->clip($name, $device, $clock, $seconds);
        mkdir(MediaFolder::of($clip)->folder(), 0777, true);
        file_put_contents(
            MediaFolder::of($clip)->folder() . '/guide',
            pack('s*', ...array_slice(Noise::speech(40, 81), 8000 * $from, 8000 * $seconds)),
        );

        return $clip;
    }

    public function test_what_people_decide_while_a_run_goes_on_stands_when_it_ends(): void
    {
        $this->heard('S1', 'S', 1000, 0, 40);
        $locked = $this->heard('A1', 'A', 1003, 5, 10);
        $out = $this->heard('B1', 'B', 1006, 6, 12);
        $free = $this->heard('B2', 'B', 1021, 20, 12);
        $decided = false;
        app(PlaceClips::class)($this->day, ['sound'], function () use (&$decided, $locked, $out): void {
            if (!$decided) {
                $decided = true;
                $locked->placement()->updateOrCreate(
                    [],
                    [
                        'shoot_day_id' => $this->day->id,
                        'group' => 0,
                        'start_ticks' => 1007 * Ticks::PER_SECOND,
                        'way' => 'hand',
                        'locked_at' => now(),
                    ],
                );
                $this->as()
                    ->postJson($this->at("clips/$out->ulid/leave-out"), ['out' => true])
                    ->assertOk();
            }
        });
        self::assertTrue($decided);
        self::assertSame(
            [1007 * Ticks::PER_SECOND, 'hand'],
            [$locked->placement()->sole()->start_ticks, $locked->placement()->sole()->way],
        );
        self::assertNull($out->placement()->sole()->start_ticks);
        self::assertNotNull($out->placement()->sole()->left_out_at);
        self::assertEqualsWithDelta(1020 * Ticks::PER_SECOND, $free->placement()->sole()->start_ticks, Ticks::PER_SECOND / 500);
    }
}
