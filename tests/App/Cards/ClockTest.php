<?php

declare(strict_types=1);

namespace Tests\App\Cards;

use App\Domain\Lineup\Corrections;
use App\Models\Clip;
use App\Models\Role;
use App\Models\ShootDay;
use Cartella\Core\Time\Ticks;
use Database\Factories\CardFactory;
use Tests\App\TestCase;

/** A clock is corrected by what one frame really reads; what was recorded stays. */
final class ClockTest extends TestCase
{
    private Clip $clip;

    protected function setUp(): void
    {
        parent::setUp();
        $card = CardFactory::new()
            ->roll('A003')
            ->createOne(
                $this->ours() + [
                    'device_id' => $this->devices['A']->id,
                ],
            );
        $this->clip = $this->clip('A003C005', 'A', 36_000, more: ['card_id' => $card->id]);
        $this->as();
    }

    private function state(string $reads, string $for, int $frame = 0): \Illuminate\Testing\TestResponse
    {
        return $this->postJson($this->at("clips/{$this->clip->ulid}/clock"), ['frame' => $frame, 'reads' => $reads, 'for' => $for]);
    }

    private function seconds(?Clip $clip = null): float
    {
        $clip ??= $this->clip;

        return (new Corrections($clip->day))->of($clip) / Ticks::PER_SECOND;
    }

    public function test_the_frame_that_is_named_reads_what_was_said(): void
    {
        $this->state('10:42:17:08', 'card', 50)->assertOk();
        self::assertSame(2_535.32, $this->seconds());
        self::assertSame(36_000 * Ticks::PER_SECOND, $this->clip->refresh()->start_ticks, 'what was recorded stays');
        $this->getJson($this->at("clips/{$this->clip->ulid}"))
            ->assertJsonPath('start_timecode', '10:00:00:00')
            ->assertJsonPath('corrected_timecode', '10:42:15:08');
    }

    public function test_a_cards_correction_goes_before_its_days_and_that_before_the_devices(): void
    {
        $other = $this->clip('A004C001', 'A', 40_000);
        $tomorrow = ShootDay::query()->create(['production_id' => $this->production->id, 'number' => 2, 'date' => '2026-10-06']);
        $later = $this->clip('A005C001', 'A', 40_000, more: ['shoot_day_id' => $tomorrow->id]);
        $this->state('10:00:01:00', 'device')->assertOk();
        self::assertSame([1.0, 1.0, 1.0], array_map($this->seconds(...), [$this->clip, $other, $later]));
        $this->state('10:00:02:00', 'day')->assertOk();
        self::assertSame([2.0, 2.0, 1.0], array_map($this->seconds(...), [$this->clip, $other, $later]));
        $this->state('10:00:03:00', 'card')->assertOk();
        self::assertSame([3.0, 2.0, 1.0], array_map($this->seconds(...), [$this->clip, $other, $later]));
        foreach ([2.0, 1.0, 0.0] as $before) {
            $this->postJson($this->at('undo'))->assertOk();
            self::assertSame($before, $this->seconds());
        }
    }

    public function test_a_clock_behind_midnight_is_taken_the_short_way(): void
    {
        $late = $this->clip('A006C001', 'A', 10);
        $this->postJson($this->at("clips/$late->ulid/clock"), ['frame' => 0, 'reads' => '23:59:50:00', 'for' => 'day'])
            ->assertOk()
            ->assertJsonPath('correction_ticks', -20 * Ticks::PER_SECOND);
    }

    public function test_what_is_no_label_no_frame_or_no_clock_is_refused_in_a_sentence(): void
    {
        $this->state('10:00:00:25', 'card')->assertStatus(422)->assertJsonPath('code', 'clock.label');
        $this->state('10:00:00:00', 'card', 250)->assertStatus(422)->assertJsonPath('code', 'clock.frame');
        $this->clip->update(['start_ticks' => null]);
        $this->state('10:00:00:00', 'card')->assertStatus(422)->assertJsonPath('code', 'clock.none');
        $this->as(Role::Reviewer)->state('10:00:00:00', 'card')->assertStatus(403);
    }
}
