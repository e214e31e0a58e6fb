<?php

declare(strict_types=1);

namespace Tests\App\Screening;

use App\Domain\Footage\MediaFolder;
use App\Domain\Handoff\ExchangeSequence;
use App\Domain\Screening\BuildReel;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SequenceStore;
use App\Models\Card;
use App\Models\Clip;
use App\Models\Role;
use App\Models\StoredSequence;
use App\Models\Take;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Slate\SlateOrder;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\Ticks;
use Database\Factories\DeviceFactory;
use Database\Factories\ShootDayFactory;
use Illuminate\Support\Facades\DB;
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

    /** @param  array<string, mixed>  $recipe */
    private function build(bool $circledOnly = false, array $recipe = []): StoredSequence
    {
        return StoredSequence::query()
            ->where(
                'ulid',
                $this->as(Role::Editor)
                    ->postJson($this->onDay('reels'), $recipe + ['circled_only' => $circledOnly])
                    ->assertStatus(201)
                    ->json('ulid'),
            )
            ->sole();
    }

    private function again(StoredSequence $reel): ?string
    {
        return $this->postJson($this->at("reels/$reel->ulid/build"))->assertOk()->json('changed');
    }

    /** @return list<string> ULIDs of its takes as the room shows them */
    private function takesOf(StoredSequence $reel): array
    {
        return array_values(
            array_unique(array_column($this->getJson($this->at("reels/$reel->ulid"))->assertOk()->json('items.*.take'), 'ulid')),
        );
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
        self::assertNull($this->again($reel), 'nothing has changed');
        $second->update(['status' => 'circled']);
        $third->update(['status' => 'none']);
        $first->parts()->update(['in_ticks' => 0, 'out_ticks' => 4 * Ticks::PER_SECOND]);
        self::assertSame('3/2 came in; 3A/1 went out; 3/1 changed in length or picture.', $this->again($reel));
        self::assertSame(['A0', 'A1'], $this->shown($reel));
        $listed = $this->getJson($this->onDay('reels'))->assertOk()->json('reels.0');
        self::assertSame(['2 takes', 'A0'], [$listed['shows'], Clip::query()->where('ulid', $listed['first_clip'])->value('name')]);
        self::assertStringStartsWith('3/2 came in', $listed['changed']);
        self::assertNull($this->again($reel), 'and then it stands');
        $second->update(['status' => 'none']);
        $first->update(['status' => 'none']);
        self::assertSame('3/1, 3/2 went out.', $this->again($reel));
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

    public function test_each_choice_of_pictures_shows_what_it_says(): void
    {
        $first = $this->take('3', 1);
        $this->shot('wide', 'A', 0, 10, $first);
        $this->shot('close', 'B', 0, 14, $first);
        $this->shot('only wide', 'A', 60, 10, $this->take('3', 2));
        $shown = fn(array $recipe): array => $this->shown($this->build(recipe: $recipe));
        self::assertSame(['wide', 'only wide'], $shown(['angles' => 'first']));
        self::assertSame(['close', 'only wide'], $shown(['angles' => 'best']), 'the one that saw most');
        self::assertSame(['wide', 'close', 'only wide'], $shown(['angles' => 'each']));
        self::assertSame(['close'], $shown(['angles' => 'device', 'device' => 'B']));
        self::assertSame(['wide', 'only wide'], $shown(['angles' => 'together']));
        $this->postJson($this->onDay('reels'), ['circled_only' => false, 'angles' => 'device'])->assertStatus(422);
    }

    public function test_takes_come_from_days_scenes_a_bin_or_are_chosen_in_slate_order_or_as_shot(): void
    {
        $late = $this->take('3', 1);
        $this->shot('three', 'A', 500, 10, $late);
        $this->shot('twelve', 'A', 100, 10, $this->take('12', 1));
        $other = ShootDayFactory::new()->createOne(['production_id' => $this->production->id, 'number' => 2, 'date' => '2026-10-06']);
        $pickup = $this->take('12', 7, ['shoot_day_id' => $other->id]);
        $clip = $this->shot('of day 2', 'A', 10, 10, $pickup);
        $clip->update(['shoot_day_id' => $other->id]);
        $shown = fn(array $recipe): array => $this->shown($this->build(recipe: $recipe));
        self::assertSame(['three', 'twelve'], $shown(['order' => 'slate']));
        self::assertSame(['twelve', 'three'], $shown(['order' => 'shot']));
        self::assertSame(
            ['twelve', 'three', 'of day 2'],
            $shown(['from' => 'days', 'what' => [$this->day->ulid, $other->ulid], 'order' => 'shot']),
            'a day later is later, whatever its clock says',
        );
        self::assertSame(['twelve', 'of day 2'], $shown(['from' => 'scenes', 'what' => ['12']]));
        self::assertSame(['of day 2'], $shown(['from' => 'takes', 'what' => [$pickup->ulid]]));
        self::assertSame(['twelve', 'of day 2'], $shown(['from' => 'bin', 'what' => ['scene:12']]));
        $bin = $this->postJson($this->at('bins'), ['name' => 'Selects'])
            ->assertStatus(201)
            ->json('key');
        $this->postJson($this->at("bins/$bin/items"), ['refs' => ["take:$late->ulid"]])->assertOk();
        self::assertSame(['three'], $shown(['from' => 'bin', 'what' => [$bin]]));
        $foreign = ['circled_only' => false, 'from' => 'takes', 'what' => ['01ARZ3NDEKTSV4RRFFQ69G5FAV']];
        $this->postJson($this->onDay('reels'), $foreign)->assertStatus(422)->assertJsonPath('code', 'reel.empty');
    }

    public function test_a_take_is_shown_from_its_slate_its_action_or_whole_and_marks_on_its_clip_change_nothing(): void
    {
        $clip = $this->shot('wide', 'A', 0, 30, $this->take('3', 1));
        mkdir(MediaFolder::of($clip)->folder(), 0777, true);
        $second = Ticks::PER_SECOND;
        file_put_contents(
            MediaFolder::of($clip)->folder() . '/points.json',
            json_encode([
                'claps' => [['ticks' => 4 * $second, 'strength' => 0.9]],
                'onsets' => [],
                'flashes' => [],
                'speech' => [1 * $second, 9 * $second],
            ]),
        );
        touch(MediaFolder::of($clip)->folder() . '/points.json', time() + 10);
        $this->as(Role::Editor);
        $this->putJson($this->at("clips/$clip->ulid/marks"), ['in_ticks' => 12 * $second, 'out_ticks' => 15 * $second])->assertOk();
        $stretch = fn(string $begin): array => [
            $this->pieces($this->build(recipe: ['begin' => $begin]))[0]->sourceStartTicks / $second,
            $this->pieces($this->build(recipe: ['begin' => $begin]))[0]->sourceEndTicks() / $second,
        ];
        self::assertEquals([3, 30], $stretch('slate'), 'a second before it closes');
        self::assertEquals([9, 30], $stretch('action'), 'the first words after the clap');
        self::assertEquals([0, 30], $stretch('whole'));
        $item = $this->getJson($this->at('reels/' . $this->build()->ulid))->json('items.0');
        self::assertSame([4 * $second, 9 * $second], [$item['slate_ticks'], $item['action_ticks']]);
    }

    public function test_what_is_arranged_by_hand_stays_so_when_takes_change_and_goes_back_by_undo(): void
    {
        $takes = [];
        foreach (range(1, 4) as $n) {
            $takes[$n] = $this->take('3', $n);
            $this->shot("A$n", 'A', 60 * $n, 10, $takes[$n]);
        }
        $reel = $this->build();
        $was = $this->takesOf($reel);
        $arrange = fn(array $was, array $now) => $this->putJson($this->at("reels/$reel->ulid/takes"), compact('was', 'now'));
        $arrange($was, [$was[2], $was[0], $was[3]])->assertOk();
        self::assertSame(['A3', 'A1', 'A4'], $this->shown($reel));
        self::assertSame(['3/2'], $this->getJson($this->at("reels/$reel->ulid"))->json('left_out.*.label'));
        $arrange($was, $was)->assertStatus(409)->assertJsonPath('code', 'reel.arranged');
        $this->shot('A5', 'A', 400, 10, $this->take('3', 5));
        self::assertSame('3/5 came in.', $this->again($reel));
        self::assertSame(['A3', 'A1', 'A4', 'A5'], $this->shown($reel), 'the order stays, what was left out stays out');
        $now = $this->takesOf($reel);
        $arrange($now, [...$now, $was[1]])->assertOk();
        self::assertSame(['A3', 'A1', 'A4', 'A5', 'A2'], $this->shown($reel), 'and can be taken in again');
        $this->postJson($this->at('undo'))->assertOk();
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(['A1', 'A2', 'A3', 'A4', 'A5'], $this->shown($reel), 'back to slate order, with what came in meanwhile');
        $takes[1]->update(['take' => 9, 'sort_key' => SlateOrder::key('3', 9)]);
        $this->again($reel);
        self::assertSame(['A2', 'A3', 'A4', 'A5', 'A1'], $this->shown($reel), 'nobody arranges it now: it follows the slates');
    }

    public function test_who_arranges_what_somebody_else_arranged_a_moment_before_is_told_so(): void
    {
        foreach ([1, 2, 3] as $number) {
            $this->shot("A$number", 'A', 20 * $number, 10, $this->take('3', $number));
        }
        $reel = $this->build();
        $order = $this->takesOf($reel);
        // Both have read the reel before either changes it.
        $mine = StoredSequence::query()->findOrFail($reel->id);
        $theirs = StoredSequence::query()->findOrFail($reel->id);
        $build = app(BuildReel::class);
        $user = User::query()->firstOrFail();
        $build->arrange($theirs, $user, $order, array_reverse($order));
        try {
            $build->arrange($mine, $user, $order, [$order[1], $order[0], $order[2]]);
            self::fail('The second order replaced the first.');
        } catch (Problem $problem) {
            self::assertSame('reel.arranged', $problem->problemCode);
        }
        self::assertSame(['A3', 'A2', 'A1'], $this->shown($reel));
    }

    public function test_a_reel_that_is_built_again_keeps_the_order_that_was_given_to_it_a_moment_before(): void
    {
        foreach ([1, 2] as $number) {
            $this->shot("A$number", 'A', 20 * $number, 10, $this->take('3', $number));
        }
        $reel = $this->build();
        $order = $this->takesOf($reel);
        $this->shot('A3', 'A', 60, 10, $this->take('3', 3));
        $read = StoredSequence::query()->findOrFail($reel->id);
        $build = app(BuildReel::class);
        $build->arrange($reel->refresh(), User::query()->firstOrFail(), $order, array_reverse($order));
        $build->again($read);
        self::assertSame(['A2', 'A3', 'A1'], $this->shown($reel));
    }

    public function test_the_list_names_what_each_reel_is_made_of_and_counts_what_it_shows(): void
    {
        $take = $this->take('3', 1);
        $this->shot('wide', 'A', 0, 10, $take);
        $this->shot('close', 'B', 0, 10, $take);
        $next = ShootDayFactory::new()->createOne(['production_id' => $this->production->id, 'number' => 7]);
        $this->build(recipe: ['from' => 'scenes', 'what' => ['3']]);
        $this->build(recipe: ['from' => 'days', 'what' => [$next->ulid, $this->day->ulid], 'angles' => 'each']);
        $reels = $this->getJson($this->onDay('reels'))->assertOk()->json('reels');
        self::assertSame(
            [["days {$this->day->number}, 7", '2 pieces'], ['scene 3', '1 take']],
            array_map(static fn(array $one): array => [$one['of'], $one['shows']], $reels),
        );
        $queries = function (): int {
            DB::enableQueryLog();
            DB::flushQueryLog();
            $this->getJson($this->onDay('reels'))->assertOk();
            DB::disableQueryLog();

            return count(DB::getQueryLog());
        };
        $few = $queries();
        $this->build(recipe: ['from' => 'days', 'what' => [$next->ulid, $this->day->ulid]]);
        self::assertSame($few, $queries());
    }

    public function test_two_hundred_takes_are_built_by_few_questions_and_every_take_is_there(): void
    {
        foreach (range(1, 200) as $n) {
            $this->clip("A$n", 'A', 30 * $n, 10, $this->take('3', $n), ['proxied_at' => now()]);
        }
        DB::enableQueryLog();
        self::assertCount(200, $this->pieces($this->build()));
        self::assertLessThan(60, count(DB::getQueryLog()), 'however many takes there are');
        DB::disableQueryLog();
    }
}
