<?php

declare(strict_types=1);

namespace Tests\App\Day;

use App\Models\ClockOffset;
use Cartella\Core\Time\Ticks;
use Illuminate\Testing\TestResponse;
use Tests\App\TestCase;

final class OpenPointsTest extends TestCase
{
    private function sheet(): TestResponse
    {
        return $this->as()->getJson($this->onDay('sheet'))->assertOk();
    }

    /** @return list<string> */
    private function titles(): array
    {
        return array_column($this->sheet()->json('points'), 'title');
    }

    private function fix(string $title, int $which = 0): TestResponse
    {
        $point = array_values(array_filter($this->sheet()->json('points'), static fn(array $point): bool => $point['title'] === $title))[0];

        return $this->postJson($this->onDay('points'), ['key' => $point['key'], 'fix' => $point['fixes'][$which]['name']])->assertOk();
    }

    public function test_a_take_that_the_recorder_missed_is_open_until_it_is_guide_only(): void
    {
        $take = $this->take('3A', 2);
        $this->place($this->clip('A001C004', 'A', 35_285, 11, $take), 35_285);
        self::assertSame(['3A/2 has no sound'], $this->titles());
        self::assertStringContainsString('A rolled 09:48:05 to 09:48:16', $this->sheet()->json('points.0.evidence'));
        $this->fix('3A/2 has no sound');
        $fixer = auth()->user();
        self::assertSame([], $this->titles());
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame([], $this->titles(), 'somebody else asked, who has nothing to take back');
        $this->actingAs($fixer)->postJson($this->at('undo'))->assertOk();
        self::assertSame(['3A/2 has no sound'], $this->titles());
    }

    public function test_sound_without_picture_is_open_until_it_is_wild(): void
    {
        $this->place($this->clip('7-T01', 'S', 100, 9, $this->take('7', 1)), 100);
        self::assertSame(['7/1 has no picture'], $this->titles());
        $this->fix('7/1 has no picture');
        self::assertSame([], $this->titles());
    }

    public function test_a_camera_that_rolled_on_the_other_takes_is_missed(): void
    {
        foreach ([1, 2] as $number) {
            $take = $this->take('7A', $number);
            $this->place($this->clip("A$number", 'A', 100 * $number, 9, $take), 100 * $number);
            $this->place($this->clip("S$number", 'S', 100 * $number, 9, $take), 100 * $number);
        }
        $this->place($this->clip('B2', 'B', 200, 9, $take), 200);
        self::assertSame(['7A/1: camera B is missing'], $this->titles());
        $this->fix('7A/1: camera B is missing');
        self::assertSame([], $this->titles());
    }

    public function test_a_disagreement_shows_every_value_and_its_source_and_either_ends_it(): void
    {
        $take = $this->take('3A', 4, [
            'claims' => [
                ['from' => 'ixml', 'where' => '3A-T04', 'setup' => '3A', 'take' => 4],
                ['from' => 'name', 'where' => '3A_T03_B', 'setup' => '3A', 'take' => 3],
            ],
        ]);
        $clip = $this->clip('3A_T03_B', 'B', 0, 9, $take);
        self::assertSame(['3A/4 or 3A/3?'], $this->titles());
        self::assertSame('The recorder (3A-T04) says 3A/4. The name (3A_T03_B) says 3A/3.', $this->sheet()->json('points.0.evidence'));
        $this->fix('3A/4 or 3A/3?', 1);
        self::assertSame('3A/3', $clip->refresh()->take->label());
        self::assertSame([], $this->titles());
    }

    public function test_a_clip_that_no_take_claims_is_open_until_it_is_a_false_start(): void
    {
        $this->place($this->clip('B001C003', 'B', 34_802, 3), 34_802);
        self::assertSame(['B001C003 belongs to no take'], $this->titles());
        $this->fix('B001C003 belongs to no take');
        self::assertSame([], $this->titles());
    }

    public function test_a_clock_that_is_off_is_said_in_frames_and_can_be_applied_without_touching_what_was_recorded(): void
    {
        $clip = $this->clip('B1', 'B', 100, 9, $this->take('3', 1, ['is_mos' => true]));
        ClockOffset::query()->create([
            'shoot_day_id' => $this->day->id,
            'device_id' => $this->devices['B']->id,
            'learned_ticks' => 32 * intdiv(Ticks::PER_SECOND, 25),
            'votes' => 11,
        ]);
        self::assertSame(["Camera B's clock is 1 s 7 f late all day"], $this->titles());
        $this->fix("Camera B's clock is 1 s 7 f late all day");
        self::assertSame([], $this->titles());
        self::assertSame(100 * Ticks::PER_SECOND, $clip->refresh()->start_ticks);
    }

    public function test_a_stray_and_an_unsure_place_are_open(): void
    {
        $take = $this->take('3', 1, ['is_mos' => true]);
        $this->clip('A1', 'A', 0, 5, $take)
            ->placement()
            ->create(['shoot_day_id' => $this->day->id, 'stray_reason' => 'Nothing can be heard on it.']);
        $this->place($this->clip('A2', 'A', 10, 5, $take), 10, isSure: false);
        self::assertSame(['A1 is a stray', 'A2: look at its place'], $this->titles());
        $this->fix('A2: look at its place');
        self::assertSame(['A1 is a stray'], $this->titles());
    }

    public function test_a_clip_that_a_person_took_out_of_the_line_up_is_settled(): void
    {
        $clip = $this->clip('A1', 'A', 0, 5, $this->take('3', 1, ['is_mos' => true]));
        $clip->placement()->create(['shoot_day_id' => $this->day->id, 'stray_reason' => 'Nothing can be heard on it.']);
        self::assertSame(['A1 is a stray'], $this->titles());
        $this->postJson($this->at("clips/$clip->ulid/leave-out"), ['out' => true])->assertOk();
        self::assertSame([], $this->titles());
        $this->getJson($this->onDay('tabs'))->assertJsonPath('to_place', 0);
    }

    public function test_a_place_that_the_clips_own_timecode_contradicts_says_by_how_much(): void
    {
        $clip = $this->clip('A1', 'A', 0, 5, $this->take('3', 1, ['is_mos' => true]));
        $this->place($clip, 10, isSure: false);
        $clip->placement()->update(['evidence' => ['clock_disagrees_ticks' => -2 * Ticks::PER_SECOND]]);
        self::assertStringContainsString('begins 2 s earlier than by its own timecode', $this->sheet()->json('points.0.evidence') ?? '');
    }

    public function test_a_step_that_the_point_does_not_offer_is_refused(): void
    {
        $this->place($this->clip('B001C003', 'B', 0, 3), 0);
        $key = $this->sheet()->json('points.0.key');
        $this->postJson($this->onDay('points'), ['key' => $key, 'fix' => 'lock'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'point.fix');
        $this->postJson($this->onDay('points'), ['key' => 'clip.nobody', 'fix' => 'lock'])->assertNotFound();
    }

    public function test_an_empty_day_has_counts_of_nothing_and_nothing_open(): void
    {
        $sheet = $this->sheet();
        self::assertSame([0, 0, 0], [$sheet->json('counts.cards'), $sheet->json('counts.takes'), $sheet->json('counts.synced')]);
        self::assertSame([], $sheet->json('points'));
        self::assertFalse($sheet->json('wrap.0.done'));
    }
}
