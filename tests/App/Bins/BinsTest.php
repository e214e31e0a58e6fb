<?php

declare(strict_types=1);

namespace Tests\App\Bins;

use App\Models\Clip;
use App\Models\ClipMark;
use App\Models\Role;
use App\Models\Subclip;
use Cartella\Core\Time\Ticks;
use Database\Factories\ProductionFactory;
use Database\Factories\StoredSequenceFactory;
use Tests\App\TestCase;

final class BinsTest extends TestCase
{
    /** @return list<string> */
    private function names(string $key): array
    {
        return array_column($this->getJson($this->at('bins/' . rawurlencode($key) . '/items'))->assertOk()->json('rows'), 'name');
    }

    public function test_each_scene_fills_a_bin_in_slate_order_by_itself(): void
    {
        foreach ([['12A', 1, 'late'], ['12', 2, 'second'], ['12', 1, 'first'], ['3', 1, 'other']] as [$setup, $take, $name]) {
            $this->clip($name, 'A', 0, take: $this->take($setup, $take));
        }
        $this->as()
            ->getJson($this->at('bins'))
            ->assertJsonPath('groups.0.bins.0.key', 'scene:3')
            ->assertJsonPath('groups.0.bins.1.items', 3);
        self::assertSame(['first', 'second', 'late'], $this->names('scene:12'));
    }

    public function test_a_scene_may_be_called_as_its_production_calls_it(): void
    {
        $this->as();
        $take = $this->take('12-14', 1, ['scene' => '12-14']);
        $this->clip('A001C001', 'A', 0, take: $take);
        $key = $this->getJson($this->at('bins'))->json('groups.0.bins.0.key');
        $this->getJson($this->at('bins/' . rawurlencode($key) . '/items'))->assertOk()->assertJsonPath('rows.0.take.setup', '12-14');
        foreach (['scene:', 'import:nothing', 'sound:loud', 'scene', '01ARZ3NDEKTSV4RRFFQ69G5FAV'] as $none) {
            $this->getJson($this->at('bins/' . rawurlencode($none) . '/items'))->assertNotFound();
        }
    }

    public function test_a_recording_over_takes_of_two_scenes_stands_once_in_the_bin_of_each(): void
    {
        $this->as();
        $sound = $this->clip('TAPE0001', 'S', 0, 100);
        foreach (['3' => 0, '4' => 40, '4A' => 70] as $setup => $from) {
            $sound->parts()->create([
                'take_id' => $this->take((string) $setup, 1)->id,
                'in_ticks' => $from,
                'out_ticks' => $from + 10,
                'said_by' => 'person',
            ]);
        }
        foreach (['3' => '3', '4' => '4'] as $scene => $setup) {
            $bin = $this->getJson($this->at("bins/scene:$scene/items"))->assertOk();
            $bin->assertJsonPath('total', 1)->assertJsonCount(1, 'rows')->assertJsonPath('rows.0.take.setup', $setup);
        }
        $bin = $this->getJson($this->at('bins/scene:4/items?takes=1'))->assertOk();
        $bin->assertJsonPath('total', 2)->assertJsonPath('rows.1.angles.0.clip', $sound->ulid);
        self::assertSame([1, 2], array_column($this->getJson($this->at('bins'))->json('groups.0.bins'), 'items'), 'takes');
    }

    public function test_a_long_bin_comes_in_pages(): void
    {
        $take = $this->take('3', 1);
        for ($n = 0; $n < 12; $n++) {
            $this->clip(sprintf('A%03d', $n), 'A', $n, take: $take);
        }
        $page = $this->as()->getJson($this->at('bins/scene:3/items?from=10&limit=5'))->assertOk();
        self::assertSame([12, ['A010', 'A011']], [$page->json('total'), array_column($page->json('rows'), 'name')]);
        $this->getJson($this->at('bins/scene:3/items?limit=100000'))->assertStatus(422);
    }

    public function test_clips_go_into_own_bins_from_one_to_another_and_back_by_undo(): void
    {
        $clip = $this->clip('A001C001', 'A', 0, take: $this->take('3', 1));
        $first = $this->as(Role::Editor)
            ->postJson($this->at('bins'), ['name' => 'First'])
            ->assertStatus(201)
            ->json('key');
        $second = $this->postJson($this->at('bins'), ['name' => 'Second'])->json('key');
        $this->postJson($this->at("bins/$first/items"), ['refs' => ["clip:$clip->ulid"], 'from' => null])->assertJsonPath('moved', 1);
        $this->postJson($this->at("bins/$first/items"), ['refs' => ["clip:$clip->ulid"], 'from' => null])->assertJsonPath('moved', 0);
        $this->postJson($this->at("bins/$second/items"), ['refs' => ["clip:$clip->ulid"], 'from' => $first])->assertOk();
        self::assertSame([[], ['A001C001'], ['A001C001']], [$this->names($first), $this->names($second), $this->names('scene:3')]);
        $this->postJson($this->at('undo'));
        self::assertSame([['A001C001'], []], [$this->names($first), $this->names($second)]);
    }

    public function test_a_removed_bin_comes_back_with_what_was_in_it(): void
    {
        $clip = $this->clip('A001C001', 'A', 0);
        $bin = $this->as()
            ->postJson($this->at('bins'), ['name' => 'Own'])
            ->json('key');
        $this->postJson($this->at("bins/$bin/items"), ['refs' => ["clip:$clip->ulid"]]);
        $this->deleteJson($this->at("bins/$bin"))->assertOk();
        $this->getJson($this->at("bins/$bin/items"))->assertNotFound();
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(['A001C001'], $this->names($bin));
    }

    public function test_two_bins_of_one_name_and_names_of_nothing_are_refused(): void
    {
        $this->as()
            ->postJson($this->at('bins'), ['name' => 'Own'])
            ->assertStatus(201);
        $this->postJson($this->at('bins'), ['name' => 'Own'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'bin.taken');
        $this->postJson($this->at('bins'), ['name' => '   '])->assertStatus(422);
        $this->postJson($this->at('bins'), ['name' => 'scene:3'])->assertStatus(422);
    }

    public function test_a_range_is_kept_as_a_subclip_and_never_outside_its_clip(): void
    {
        $clip = $this->clip('A001C001', 'A', 0, 10);
        $ask = fn(int $in, int $out) => $this->postJson($this->at("clips/$clip->ulid/subclips"), [
            'name' => 'The turn',
            'in_ticks' => $in,
            'out_ticks' => $out,
        ]);
        $this->as(Role::Editor);
        $ask(2 * Ticks::PER_SECOND, 4 * Ticks::PER_SECOND)->assertStatus(201);
        foreach ([[4, 4], [5, 4], [-1, 4], [0, 11]] as [$in, $out]) {
            $ask($in * Ticks::PER_SECOND, $out * Ticks::PER_SECOND)
                ->assertStatus(422)
                ->assertJsonPath('code', 'subclip.range');
        }
        $this->getJson($this->at("clips/$clip->ulid"))->assertJsonPath('subclips.0.name', 'The turn');
        $this->postJson($this->at('undo'));
        self::assertSame(0, Subclip::query()->count());
    }

    public function test_a_device_is_said_once_for_many_clips_and_taken_back_at_once(): void
    {
        $clips = [$this->clip('A1', 'A', 0), $this->clip('A2', 'A', 10), $this->clip('B1', 'B', 0)];
        $ulids = array_map(static fn($clip): string => $clip->ulid, $clips);
        $this->as()
            ->postJson($this->at('device'), ['clips' => $ulids, 'device' => 'B'])
            ->assertOk()
            ->assertJsonPath('changed', 2);
        self::assertSame(['B', 'B', 'B'], array_map(static fn($clip): string => $clip->refresh()->device->letter, $clips));
        $this->postJson($this->at('undo'))->assertJsonPath('label', '2 clips are camera B');
        self::assertSame(['A', 'A', 'B'], array_map(static fn($clip): string => $clip->refresh()->device->letter, $clips));
        $this->postJson($this->at('device'), ['clips' => $ulids, 'device' => 'Z'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'device.unknown');
        $this->as(Role::Editor)
            ->postJson($this->at('device'), ['clips' => $ulids, 'device' => 'A'])
            ->assertForbidden();
    }

    public function test_clips_are_coloured_in_one_step_and_a_colleagues_colour_stays_when_it_is_taken_back(): void
    {
        $clips = array_map(fn(int $n): Clip => $this->clip("A001C00$n", 'A', 20 * $n), [1, 2, 3]);
        $ulids = array_map(static fn(Clip $clip): string => $clip->ulid, $clips);
        $rosa = $this->person();
        $this->actingAs($rosa)
            ->putJson($this->at('colours'), ['clips' => $ulids, 'colour' => 'rust'])
            ->assertJsonPath('changed', 3);
        self::assertSame(['rust', 'rust', 'rust'], array_column($this->getJson($this->at('bins/device:A/items'))->json('rows'), 'colour'));
        $this->as()
            ->putJson($this->at('colours'), ['clips' => [$ulids[1]], 'colour' => 'teal'])
            ->assertOk();
        $this->actingAs($rosa)->postJson($this->at('undo'))->assertOk();
        self::assertSame([null, 'teal', null], Clip::query()->orderBy('id')->pluck('colour')->all());
        $this->putJson($this->at('colours'), ['clips' => $ulids, 'colour' => 'gold'])->assertStatus(422);
    }

    public function test_a_markers_stretch_lies_in_a_bin_under_its_name(): void
    {
        $second = Ticks::PER_SECOND;
        $clip = $this->clip('A001C001', 'A', 0, 60);
        $this->as();
        $this->postJson($this->at("clips/$clip->ulid/markers"), [
            'name' => 'the gull',
            'in_ticks' => 5 * $second,
            'out_ticks' => 9 * $second,
            'about' => 'sound',
        ])
            ->assertStatus(201)
            ->assertJsonPath('about', 'sound');
        $bin = $this->postJson($this->at('bins'), ['name' => 'Birds', 'parent' => null])->json('key');
        $refs = ["clip:$clip->ulid", sprintf('clip:%s#%d-%d', $clip->ulid, 5 * $second, 9 * $second)];
        $this->postJson($this->at("bins/$bin/items"), ['refs' => $refs, 'from' => null])->assertOk();
        $rows = $this->getJson($this->at("bins/$bin/items"))->json('rows');
        self::assertEqualsCanonicalizing(
            [['A001C001', null, 60 * $second], ['the gull', 5 * $second, 4 * $second]],
            array_map(static fn(array $row): array => [$row['name'], $row['in_ticks'], $row['duration_ticks']], $rows),
        );
    }

    public function test_marks_are_ones_own(): void
    {
        $clip = $this->clip('A001C001', 'A', 0, 10);
        $this->as(Role::Reviewer)
            ->putJson($this->at("clips/$clip->ulid/marks"), ['in_ticks' => 5, 'out_ticks' => 9])
            ->assertOk();
        $this->getJson($this->at("clips/$clip->ulid"))->assertJsonPath('marks.in_ticks', 5);
        $this->as()->getJson($this->at("clips/$clip->ulid"))->assertJsonPath('marks.in_ticks', null);
        $this->putJson($this->at("clips/$clip->ulid/marks"), ['in_ticks' => 2, 'out_ticks' => null])->assertOk();
        $this->putJson($this->at("clips/$clip->ulid/marks"), ['in_ticks' => 3, 'out_ticks' => null])->assertOk();
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'In point of A001C001');
        $this->getJson($this->at("clips/$clip->ulid"))->assertJsonPath('marks.in_ticks', 2);
        $this->postJson($this->at('undo'))->assertOk();
        $this->getJson($this->at("clips/$clip->ulid"))->assertJsonPath('marks.in_ticks', null);
        $this->postJson($this->at('redo'))->assertOk();
        $this->getJson($this->at("clips/$clip->ulid"))->assertJsonPath('marks.in_ticks', 2);
        self::assertSame([2, 5], ClipMark::query()->orderBy('in_ticks')->pluck('in_ticks')->all(), 'the reviewer\'s stay as they are');
    }

    public function test_a_bin_holds_clips_takes_subclips_and_cuts_each_by_reference_and_once(): void
    {
        $this->as();
        $take = $this->take('3', 1);
        $clip = $this->clip('A001C001', 'A', 0, 10, $take);
        $other = $this->clip('B001C001', 'B', 0, 10, $take);
        $sub = $this->postJson($this->at("clips/$clip->ulid/subclips"), [
            'name' => 'The turn',
            'in_ticks' => 2 * Ticks::PER_SECOND,
            'out_ticks' => 4 * Ticks::PER_SECOND,
        ])->json('ulid');
        $cut = StoredSequenceFactory::new()
            ->showing([$other->ulid])
            ->createOne(['production_id' => $this->production->id, 'name' => 'Selects']);
        $bin = $this->postJson($this->at('bins'), ['name' => 'For Ines'])->json('key');
        $refs = ["clip:$clip->ulid", "take:$take->ulid", "subclip:$sub", "sequence:$cut->ulid"];
        $this->postJson($this->at("bins/$bin/items"), ['refs' => $refs])->assertJsonPath('moved', 4);
        $this->postJson($this->at("bins/$bin/items"), ['refs' => [...$refs, $refs[0]]])->assertJsonPath('moved', 0);
        $rows = $this->getJson($this->at("bins/$bin/items"))->assertOk()->json('rows');
        self::assertEqualsCanonicalizing(
            [['clip', 'A001C001', 10], ['take', '3/1', 10], ['subclip', 'The turn', 2], ['sequence', 'Selects', 0]],
            array_map(static fn(array $row): array => [$row['what'], $row['name'], $row['duration_ticks'] / Ticks::PER_SECOND], $rows),
        );
        self::assertEqualsCanonicalizing(
            [$clip->ulid, $clip->ulid, $clip->ulid, null],
            array_column($rows, 'clip'),
            'whose sheet is shown',
        );
        $this->deleteJson($this->at("clips/$clip->ulid/subclips/$sub"))->assertOk();
        self::assertSame(3, $this->getJson($this->at("bins/$bin/items"))->json('total'));
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(4, $this->getJson($this->at("bins/$bin/items"))->json('total'), 'it is back in its bins');
        $cut->update(['removed_at' => now()]);
        self::assertSame(3, $this->getJson($this->at("bins/$bin/items"))->json('total'));
    }

    public function test_a_reference_to_what_is_not_of_the_production_goes_into_no_bin(): void
    {
        $clip = $this->clip('A001C001', 'A', 0, 10);
        $foreign = $this->clip('A001C002', 'A', 0, 10, null, ['production_id' => ProductionFactory::new()->createOne()->id]);
        $bin = $this->as()
            ->postJson($this->at('bins'), ['name' => 'Own'])
            ->json('key');
        foreach (["clip:$foreign->ulid", "take:$clip->ulid", 'clip:nothing', "clip:$clip->ulid@A"] as $none) {
            $this->postJson($this->at("bins/$bin/items"), ['refs' => ["clip:$clip->ulid", $none]])->assertNotFound();
        }
        $late = 11 * Ticks::PER_SECOND;
        $this->postJson($this->at("bins/$bin/items"), ['refs' => ["clip:$clip->ulid#0-$late"]])
            ->assertStatus(422)
            ->assertJsonPath('code', 'reference.span');
        self::assertSame([], $this->names($bin));
    }

    public function test_channels_of_a_recording_are_kept_under_a_name_and_only_those_that_it_has(): void
    {
        $channels = [['index' => 1, 'name' => 'Boom'], ['index' => 2, 'name' => 'Mara']];
        $sound = $this->clip('TAPE0001', 'S', 0, 10, null, ['channels' => $channels]);
        $ask = fn(?array $numbers) => $this->postJson($this->at("clips/$sound->ulid/subclips"), [
            'name' => 'Mara alone',
            'in_ticks' => null,
            'out_ticks' => null,
            'channels' => $numbers,
        ]);
        $this->as();
        $ask([2])
            ->assertCreated()
            ->assertJsonPath('channels', [2]);
        $ask([3])
            ->assertStatus(422)
            ->assertJsonPath('code', 'subclip.channels');
        $ask([0])->assertStatus(422);
        $ask(null)->assertStatus(422)->assertJsonPath('code', 'subclip.range');
        self::assertSame("clip:$sound->ulid+2", (string) Subclip::query()->sole()->reference());
    }

    public function test_channels_of_a_whole_bin_get_their_own_names_in_one_step(): void
    {
        $named = [['index' => 1, 'name' => 'Boom'], ['index' => 2, 'name' => 'Lav Mara'], ['index' => 3, 'name' => '']];
        $sound = $this->clip('TAPE0001', 'S', 0, 10, null, ['channels' => $named]);
        $mono = $this->clip('TAPE0002', 'S', 20, 10, null, ['channels' => [['index' => 1, 'name' => 'Boom']]]);
        $this->as(Role::Editor);
        $split = fn() => $this->postJson($this->at('channels'), ['clips' => [$sound->ulid, $mono->ulid]]);
        $split()->assertOk()->assertJsonPath('made', 3);
        $split()->assertJsonPath('made', 0);
        self::assertSame(
            ['TAPE0001 Boom', 'TAPE0001 Lav Mara', 'TAPE0001 channel 3'],
            Subclip::query()->orderBy('id')->pluck('name')->all(),
        );
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Split 2 clips into channels');
        self::assertSame(0, Subclip::query()->count());
        $this->postJson($this->at('channels'), ['clips' => [str_repeat('0', 26)]])->assertNotFound();
    }

    public function test_the_edges_of_a_subclip_are_moved_later_and_never_out_of_its_clip(): void
    {
        $clip = $this->clip('A001C001', 'A', 0, 10);
        $at = fn(string $path) => $this->at("clips/$clip->ulid/subclips$path");
        $second = Ticks::PER_SECOND;
        $sub = $this->as(Role::Editor)
            ->postJson($at(''), ['name' => 'The turn', 'in_ticks' => 2 * $second, 'out_ticks' => 4 * $second])
            ->json('ulid');
        $bin = $this->postJson($this->at('bins'), ['name' => 'Own'])->json('key');
        $this->postJson($this->at("bins/$bin/items"), ['refs' => ["subclip:$sub"]])->assertOk();
        $this->patchJson($at("/$sub"), ['name' => 'The long turn', 'in_ticks' => $second, 'out_ticks' => 6 * $second])->assertOk();
        self::assertSame(5 * $second, $this->getJson($this->at("bins/$bin/items"))->json('rows.0.duration_ticks'), 'in its bins too');
        foreach ([[5, 5], [6, 5], [0, 11], [null, 3], [null, null]] as [$in, $out]) {
            $ticks = static fn(?int $seconds): ?int => $seconds === null ? null : $seconds * $second;
            $this->patchJson($at("/$sub"), ['name' => 'x', 'in_ticks' => $ticks($in), 'out_ticks' => $ticks($out)])->assertStatus(422);
        }
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(['The turn', 2 * $second], [Subclip::query()->sole()->name, Subclip::query()->sole()->in_ticks]);
    }

    public function test_a_sheet_says_in_which_bins_its_clip_is_and_what_proves_its_files(): void
    {
        $take = $this->take('3', 1);
        $clip = $this->clip('A001C001', 'A', 0, 10, $take);
        $this->as();
        foreach (['By itself' => "clip:$clip->ulid", 'By its take' => "take:$take->ulid"] as $name => $ref) {
            $bin = $this->postJson($this->at('bins'), ['name' => $name])->json('key');
            $this->postJson($this->at("bins/$bin/items"), ['refs' => [$ref]])->assertOk();
        }
        $this->postJson($this->at('bins'), ['name' => 'Elsewhere'])->assertCreated();
        $bins = $this->getJson($this->at("clips/$clip->ulid"))->assertOk()->json('bins');
        self::assertSame(
            [['By its take', 'take'], ['By itself', 'clip']],
            array_map(static fn(array $one): array => [$one['name'], $one['as']], $bins),
        );
    }

    public function test_a_place_is_marked_and_named_and_what_the_file_marks_stays(): void
    {
        $clip = $this->clip('TAPE0001', 'S', 0, 10);
        $clip->markers()->create(['kind' => 'file', 'in_ticks' => Ticks::PER_SECOND, 'name' => 'Roll']);
        $this->as();
        $place = fn(int $in, ?int $out = null) => $this->postJson($this->at("clips/$clip->ulid/markers"), [
            'in_ticks' => $in,
            'out_ticks' => $out,
            'name' => 'gull',
        ]);
        $own = $place(3 * Ticks::PER_SECOND, 4 * Ticks::PER_SECOND)
            ->assertCreated()
            ->json('ulid');
        $place(10 * Ticks::PER_SECOND)
            ->assertStatus(422)
            ->assertJsonPath('code', 'marker.place');
        $place(4, 4)->assertStatus(422);
        $this->patchJson($this->at("clips/$clip->ulid/markers/$own"), ['name' => 'gulls', 'note' => 'use it'])->assertOk();
        $markers = $this->getJson($this->at("clips/$clip->ulid"))->json('markers');
        self::assertSame(
            [['Roll', 'file'], ['gulls', 'person']],
            array_map(static fn(array $one): array => [$one['name'], $one['kind']], $markers),
        );
        $this->deleteJson($this->at("clips/$clip->ulid/markers/{$markers[0]['ulid']}"))->assertStatus(422);
        $this->deleteJson($this->at("clips/$clip->ulid/markers/$own"))->assertOk();
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame('use it', $clip->markers()->where('ulid', $own)->value('note'));
    }
}
