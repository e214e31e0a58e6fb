<?php

declare(strict_types=1);

namespace Tests\App\Screening;

use App\Domain\Footage\ClipMedia;
use App\Domain\Handoff\ReelSequence;
use App\Models\Card;
use App\Models\Clip;
use App\Models\Reel;
use App\Models\Role;
use App\Models\Take;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\Ticks;
use Tests\App\TestCase;

final class ReelTest extends TestCase
{
    private function shot(string $name, string $device, float $at, float $seconds, Take $take): Clip
    {
        $clip = $this->clip($name, $device, $at, $seconds, $take, ['proxied_at' => now(), 'card_id' => $this->card($device)->id]);
        $this->place($clip, $at);

        return $clip;
    }

    private function card(string $device): Card
    {
        return Card::query()->firstOrCreate(
            ['production_id' => $this->production->id, 'shoot_day_id' => $this->day->id, 'roll' => $device . '001'],
            ['volume' => $device . '001', 'state' => 'verified'],
        );
    }

    private function build(bool $circledOnly = false): Reel
    {
        return Reel::query()
            ->where(
                'ulid',
                $this->as(Role::Editor)
                    ->postJson($this->onDay('reels'), ['circled_only' => $circledOnly])
                    ->assertStatus(201)
                    ->json('ulid'),
            )
            ->sole();
    }

    private function sequence(Reel $reel): Sequence
    {
        return app(ReelSequence::class)->of($reel, static fn(Clip $clip): string => $clip->name);
    }

    public function test_it_shows_the_first_camera_of_each_take_in_slate_order(): void
    {
        $this->shot('late', 'A', 100, 10, $this->take('12', 1));
        $take = $this->take('3', 1);
        $this->shot('close', 'B', 0, 10, $take);
        $this->shot('wide', 'A', 0, 10, $take);
        $this->shot('only close', 'B', 50, 10, $this->take('3A', 1));
        self::assertSame(['wide', 'only close', 'late'], $this->build()->items->map(static fn($item): string => $item->clip->name)->all());
    }

    public function test_a_day_without_slates_shows_all_clips_of_the_first_camera_in_turn(): void
    {
        $take = $this->take('21', 1);
        foreach (['A2' => 60, 'A1' => 4] as $name => $at) {
            $this->shot($name, 'A', $at, 10, $take);
        }
        $this->shot('B1', 'B', 2, 60, $take);
        self::assertSame(['A1', 'A2'], $this->build()->items->map(static fn($item): string => $item->clip->name)->all());
    }

    public function test_it_begins_a_second_before_the_clap_on_a_frame_and_a_tail_slate_from_the_start(): void
    {
        $samples = Noise::hum(10, 3);
        for ($i = 0; $i < 400; $i++) {
            $samples[24_000 + $i] = (int) (28_000 * exp(-$i / 90) * ($i % 2 === 0 ? 1 : -1));
        }
        foreach (
            [
                $this->shot('head', 'A', 0, 10, $this->take('3', 1)),
                $this->shot('tail', 'A', 50, 10, $this->take('3', 2, ['is_tail_slate' => true])),
            ]
            as $clip
        ) {
            mkdir(ClipMedia::folder($clip), 0777, true);
            file_put_contents(ClipMedia::folder($clip) . '/guide', pack('s*', ...$samples));
        }
        [$head, $tail] = $this->build()->items;
        self::assertEqualsWithDelta(2 * Ticks::PER_SECOND, $head->in_ticks, 2 * 28_224_000);
        self::assertSame(0, $head->in_ticks % 28_224_000);
        self::assertSame(0, $tail->in_ticks);
    }

    public function test_a_reel_of_nothing_is_refused_in_words(): void
    {
        $this->shot('wide', 'A', 0, 10, $this->take('3', 1));
        $this->as()
            ->postJson($this->onDay('reels'), ['circled_only' => true])
            ->assertStatus(422)
            ->assertJsonPath('code', 'reel.empty');
        self::assertSame(0, Reel::query()->count());
    }

    public function test_the_recorder_lies_under_each_picture_where_both_ran(): void
    {
        $take = $this->take('3', 1);
        $this->shot('wide', 'A', 100, 10, $take);
        $this->shot('S1', 'S', 98, 30, $take);
        [$picture, $sound] = $this->sequence($this->build())->tracks;
        self::assertSame([0, 10 * Ticks::PER_SECOND], [$picture->items[0]->recordStartTicks, $picture->items[0]->durationTicks]);
        self::assertSame(
            [2 * Ticks::PER_SECOND, 0, 10 * Ticks::PER_SECOND],
            [$sound->items[0]->sourceStartTicks, $sound->items[0]->recordStartTicks, $sound->items[0]->durationTicks],
        );
        self::assertSame('S001', $sound->items[0]->source->reel);
    }

    public function test_sound_that_begins_late_or_ends_early_is_laid_for_as_long_as_it_lasts(): void
    {
        $take = $this->take('3', 1);
        $this->shot('wide', 'A', 100, 10, $take);
        $this->shot('S1', 'S', 103, 4, $take);
        $sound = $this->sequence($this->build())->tracks[1]->items[0];
        self::assertSame(
            [0, 3 * Ticks::PER_SECOND, 4 * Ticks::PER_SECOND],
            [$sound->sourceStartTicks, $sound->recordStartTicks, $sound->durationTicks],
        );
    }

    public function test_what_it_makes_is_a_sequence_that_the_core_accepts(): void
    {
        foreach ([['3', 0, 10.02], ['3A', 60, 7.77]] as [$setup, $at, $seconds]) {
            $take = $this->take($setup, 1);
            $this->shot("A$setup", 'A', $at, $seconds, $take);
            $this->shot("S$setup", 'S', $at - 1.5, $seconds + 3, $take);
        }
        $sequence = $this->sequence($this->build());
        $again = Sequence::fromArray(json_decode((string) json_encode($sequence->toArray()), true));
        self::assertEquals($sequence->toArray(), $again->toArray());
        self::assertSame(3600 * Ticks::PER_SECOND, $sequence->startTicks);
    }

    public function test_a_note_needs_words_and_a_frame_and_is_taken_back(): void
    {
        $take = $this->take('3', 1);
        $clip = $this->shot('wide', 'A', 0, 10, $take);
        $this->as(Role::Reviewer);
        $this->postJson($this->at("takes/$take->ulid/notes"), ['text' => '', 'at_ticks' => 0])->assertStatus(422);
        $this->postJson($this->at("takes/$take->ulid/notes"), ['text' => 'x', 'at_ticks' => -1])->assertStatus(422);
        $this->postJson($this->at("takes/$take->ulid/notes"), ['text' => 'Lovely', 'at_ticks' => 0, 'clip' => $clip->ulid])->assertStatus(
            201,
        );
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Note on 3/1');
        self::assertSame(0, $take->screeningNotes()->count());
    }
}
