<?php

declare(strict_types=1);

namespace Tests\App\Screening;

use App\Domain\Footage\MediaFolder;
use App\Domain\Handoff\ExchangeSequence;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SequenceStore;
use App\Models\Card;
use App\Models\Clip;
use App\Models\Role;
use App\Models\StoredSequence;
use App\Models\Take;
use App\Models\User;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\Ticks;
use Database\Factories\DeviceFactory;
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

    private function build(bool $circledOnly = false): StoredSequence
    {
        return StoredSequence::query()
            ->where(
                'ulid',
                $this->as(Role::Editor)
                    ->postJson($this->onDay('reels'), ['circled_only' => $circledOnly])
                    ->assertStatus(201)
                    ->json('ulid'),
            )
            ->sole();
    }

    private function sequence(StoredSequence $reel): Sequence
    {
        $playlist = Playlist::of($reel, app(SequenceStore::class)->read($reel));

        return app(ExchangeSequence::class)->of($playlist, static fn(Clip $clip): string => $clip->name);
    }

    /** @return list<Item> */
    private function pieces(StoredSequence $reel): array
    {
        return app(SequenceStore::class)->read($reel->refresh())->tracks[0]->items;
    }

    /** @return list<string> the clips it shows */
    private function shown(StoredSequence $reel): array
    {
        return array_map(static fn(Item $item): string => $item->source->name, $this->pieces($reel));
    }

    public function test_it_shows_the_first_camera_of_each_take_in_slate_order(): void
    {
        $this->shot('late', 'A', 100, 10, $this->take('12', 1));
        $take = $this->take('3', 1);
        $this->shot('close', 'B', 0, 10, $take);
        $this->shot('wide', 'A', 0, 10, $take);
        $this->shot('only close', 'B', 50, 10, $this->take('3A', 1));
        self::assertSame(['wide', 'only close', 'late'], $this->shown($this->build()));
    }

    public function test_a_day_without_slates_shows_all_clips_of_the_first_camera_in_turn(): void
    {
        $take = $this->take('21', 1);
        foreach (['A2' => 60, 'A1' => 4] as $name => $at) {
            $this->shot($name, 'A', $at, 10, $take);
        }
        $this->shot('B1', 'B', 2, 60, $take);
        self::assertSame(['A1', 'A2'], $this->shown($this->build()));
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
            mkdir(MediaFolder::of($clip)->folder(), 0777, true);
            file_put_contents(MediaFolder::of($clip)->folder() . '/guide', pack('s*', ...$samples));
        }
        [$head, $tail] = $this->pieces($this->build());
        self::assertEqualsWithDelta(2 * Ticks::PER_SECOND, $head->sourceStartTicks, 2 * 28_224_000);
        self::assertSame(0, $head->sourceStartTicks % 28_224_000);
        self::assertSame(0, $tail->sourceStartTicks);
    }

    public function test_a_reel_of_nothing_is_refused_in_words(): void
    {
        $this->shot('wide', 'A', 0, 10, $this->take('3', 1));
        $this->as()
            ->postJson($this->onDay('reels'), ['circled_only' => true])
            ->assertStatus(422)
            ->assertJsonPath('code', 'reel.empty');
        self::assertSame(0, StoredSequence::query()->count());
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

    public function test_it_is_built_again_when_takes_change_and_says_what_is_otherwise(): void
    {
        $first = $this->take('3', 1, ['status' => 'circled']);
        $second = $this->take('3', 2);
        $third = $this->take('3A', 1, ['status' => 'circled']);
        foreach ([$first, $second, $third] as $n => $take) {
            $this->shot("A$n", 'A', 60 * $n, 10, $take);
        }
        $reel = $this->build(true);
        $again = fn(): ?string => $this->postJson($this->at("reels/$reel->ulid/build"))->assertOk()->json('changed');
        self::assertNull($again(), 'nothing has changed');
        $second->update(['status' => 'circled']);
        $third->update(['status' => 'none']);
        $first->parts()->update(['in_ticks' => 0, 'out_ticks' => 4 * Ticks::PER_SECOND]);
        self::assertSame('3/2 came in; 3A/1 went out; 3/1 changed in length or picture.', $again());
        self::assertSame(['A0', 'A1'], $this->shown($reel));
        $listed = $this->getJson($this->onDay('reels'))->assertOk()->json('reels.0');
        self::assertSame([2, 'A0'], [$listed['items'], Clip::query()->where('ulid', $listed['first_clip'])->value('name')]);
        self::assertStringStartsWith('3/2 came in', $listed['changed']);
        self::assertNull($again(), 'and then it stands');
        $second->update(['status' => 'none']);
        $first->update(['status' => 'none']);
        self::assertSame('3/1, 3/2 went out.', $again());
        self::assertSame([], $this->getJson($this->at("reels/$reel->ulid"))->assertOk()->json('items'));
    }

    public function test_what_somebody_cut_by_hand_is_kept_when_the_recipe_is_carried_out_again(): void
    {
        $first = $this->take('3', 1, ['status' => 'circled']);
        $second = $this->take('3', 2);
        $this->shot('A0', 'A', 0, 10, $first);
        $this->shot('A1', 'A', 60, 10, $second);
        $reel = $this->build(true);
        $trim = ['op' => 'trim', 'track' => 0, 'index' => 0, 'edge' => 'tail', 'by_ticks' => -2 * Ticks::PER_SECOND, 'ripple' => true];
        $this->postJson($this->at("sequences/$reel->ulid/edit"), ['step' => 0, 'label' => 'Trim', 'operations' => [$trim]])->assertOk();
        $byHand = $this->pieces($reel);
        $second->update(['status' => 'circled']);
        $this->postJson($this->at("reels/$reel->ulid/build"))->assertOk();
        self::assertSame(['A0', 'A1'], $this->shown($reel));
        $kept = $reel->versions()->sole();
        app(SequenceStore::class)->goBackTo($kept, User::query()->findOrFail($reel->user_id));
        self::assertEquals($byHand, $this->pieces($reel), 'and it is there to go back to');
        $second->update(['status' => 'none']);
        $this->postJson($this->at("reels/$reel->ulid/build"))->assertOk();
        $second->update(['status' => 'circled']);
        $this->postJson($this->at("reels/$reel->ulid/build"))->assertOk();
        self::assertSame(2, $reel->versions()->count(), 'one for each time that somebody had cut it since');
    }

    public function test_every_camera_that_ran_is_an_angle_from_the_same_moment_on_and_one_on_another_clock_is_none(): void
    {
        foreach (['C', 'D', 'E'] as $letter) {
            $this->devices[$letter] = DeviceFactory::new()->createOne([
                'production_id' => $this->production->id,
                'letter' => $letter,
                'lane' => count($this->devices),
            ]);
        }
        $take = $this->take('3', 1);
        $this->shot('wide', 'A', 100, 10, $take);
        $this->shot('late', 'B', 103, 30, $take);
        $this->shot('other slate', 'C', 96, 8, $this->take('4', 1));
        $this->shot('elsewhere', 'D', 100, 10, $take)->placement->update(['group' => 7]);
        $this->clip('nobody placed it', 'E', 0, 5, $take, ['proxied_at' => now()]);
        $angles = $this->getJson($this->at('reels/' . $this->build()->ulid))->assertOk()->json('items.0.angles');
        $second = Ticks::PER_SECOND;
        self::assertSame(
            [
                ['wide', 0, 0, 10 * $second],
                ['late', 3 * $second, 0, 7 * $second],
                ['other slate', 0, 4 * $second, 8 * $second],
                ['nobody placed it', 0, 0, 5 * $second],
            ],
            array_map(static fn(array $one): array => [$one['name'], $one['at_ticks'], $one['in_ticks'], $one['out_ticks']], $angles),
        );
    }

    public function test_a_playlist_says_what_plays_when_with_the_channels_of_the_take_and_the_cameras_own_where_no_recorder_ran(): void
    {
        $take = $this->take('3', 1, ['listening' => [1 => ['on' => false, 'gain_db' => 0], 2 => ['on' => true, 'gain_db' => -3]]]);
        $picture = $this->shot('wide', 'A', 100, 10, $take);
        $picture->update(['channels' => [['index' => 1, 'name' => 'L'], ['index' => 2, 'name' => 'R']]]);
        $picture->placement->update(['drift_ppm' => 12.0, 'drift_applied' => true]);
        $sound = $this->shot('S1', 'S', 103, 4, $take);
        $playlist = $this->getJson($this->at('sequences/' . $this->build()->ulid . '/playlist'))->assertOk()->json();
        $second = Ticks::PER_SECOND;
        self::assertSame([$picture->ulid, 0, 10 * $second, 0], self::piece($playlist['pictures'][0]));
        self::assertSame(
            [
                [$picture->ulid, 0, 3 * $second, 0],
                [$sound->ulid, 3 * $second, 4 * $second, 0],
                [$picture->ulid, 7 * $second, 3 * $second, 7 * $second],
            ],
            array_map(self::piece(...), $playlist['sounds']),
        );
        self::assertEquals(
            [[], 0.0],
            [array_diff([1, 2], array_column($playlist['sounds'][0]['channels'], 'index')), $playlist['sounds'][0]['drift_ppm']],
        );
        self::assertEquals([['index' => 2, 'gain_db' => -3]], $playlist['sounds'][1]['channels']);
        self::assertEqualsWithDelta(12.0, $playlist['sounds'][1]['drift_ppm'], 0.001);
    }

    /** @return array{string, int, int, int} */
    private static function piece(array $one): array
    {
        return [$one['clip'], $one['at_ticks'], $one['duration_ticks'], $one['in_ticks']];
    }
}
