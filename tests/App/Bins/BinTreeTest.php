<?php

declare(strict_types=1);

namespace Tests\App\Bins;

use App\Models\Role;
use Cartella\Core\Time\Ticks;
use Database\Factories\ShootDayFactory;
use Database\Factories\StoredSequenceFactory;
use Illuminate\Support\Facades\DB;
use Tests\App\TestCase;

/** The tree of bins, and how what lies in them is looked at. */
final class BinTreeTest extends TestCase
{
    /** @return list<string> */
    private function names(string $key, string $query = ''): array
    {
        return array_column($this->getJson($this->at('bins/' . rawurlencode($key) . "/items?$query"))->assertOk()->json('rows'), 'name');
    }

    private function make(string $name, ?string $parent = null): string
    {
        return $this->postJson($this->at('bins'), ['name' => $name, 'parent' => $parent])
            ->assertCreated()
            ->json('key');
    }

    /** @return list<string> names with their depth */
    private function tree(): array
    {
        return array_map(
            static fn(array $bin): string => str_repeat('· ', $bin['depth']) . $bin['name'],
            $this->getJson($this->at('bins'))->json('own'),
        );
    }

    public function test_no_clip_is_in_no_bin(): void
    {
        $this->clip('slated', 'A', 0, take: $this->take('3', 1));
        $this->clip('unslated', 'A', 10);
        $this->clip('wild', 'S', 20, more: ['is_wild' => true]);
        $this->clip('tape', 'S', 30);
        $this->clip('song', 'A', 40, more: ['import_kind' => 'music', 'device_id' => null]);
        $this->clip('lonely', 'A', 50, more: ['device_id' => null, 'kind' => 'other']);
        $this->as()
            ->putJson($this->at('bins/groups'), ['groups' => ['kinds', 'scenes']])
            ->assertOk();
        $seen = [];
        $counts = $this->getJson($this->at('bins/counts'))->json('counts');
        foreach ($this->getJson($this->at('bins'))->json('groups') as $group) {
            foreach ($group['bins'] as $bin) {
                $names = $this->names($bin['key'], str_starts_with($bin['key'], 'scene:') ? 'takes=1' : '');
                self::assertCount($bin['items'] ?? $counts[$bin['key']], $names, "{$bin['name']} has as many as the tree says");
                $seen[$bin['key']] = $names;
            }
        }
        self::assertSame(['lonely', 'tape', 'unslated'], self::sorted($seen['slate:none']));
        self::assertSame(['tape'], $seen['sound:production']);
        self::assertSame(['wild'], $seen['sound:wild']);
        self::assertSame(['song'], $seen['import:music']);
        self::assertCount(6, $seen['all']);
        self::assertSame(['slated'], $this->names('scene:3'));
    }

    public function test_a_production_chooses_what_its_tree_shows_and_takes_it_back(): void
    {
        $this->clip('A001C001', 'A', 0);
        $this->as(Role::Editor)
            ->putJson($this->at('bins/groups'), ['groups' => ['devices', 'days']])
            ->assertOk();
        $groups = $this->getJson($this->at('bins'))->json('groups');
        self::assertSame(['devices', 'days'], array_column($groups, 'key'));
        self::assertSame(['A001C001'], $this->names($groups[0]['bins'][0]['key']));
        self::assertSame(['A001C001'], $this->names($groups[1]['bins'][0]['key']));
        $this->putJson($this->at('bins/groups'), ['groups' => ['weather']])->assertStatus(422);
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(['scenes', 'kinds'], array_column($this->getJson($this->at('bins'))->json('groups'), 'key'));
        $this->as(Role::Reviewer)
            ->putJson($this->at('bins/groups'), ['groups' => []])
            ->assertForbidden();
    }

    public function test_imports_are_handed_off_whatever_the_tree_shows_of_them(): void
    {
        $this->clip('song', 'A', 0, more: ['import_kind' => 'music', 'device_id' => null]);
        $this->as()
            ->putJson($this->at('bins/groups'), ['groups' => ['scenes']])
            ->assertOk();
        $rule = ['join' => 'all', 'parts' => [['about' => 'import', 'test' => 'is', 'values' => ['music']]]];
        $this->postJson($this->at('bins'), ['name' => 'Songs', 'rule' => $rule])->assertCreated();
        $bins = $this->getJson($this->at('handoffs'))->assertOk()->json('bins');
        $kinds = array_column($bins['groups'][0]['bins'], null, 'name');
        // What is a question about every clip is counted apart, as it is for the tree.
        $counts = $this->getJson($this->at('bins/counts'))->assertOk()->json('counts');
        self::assertSame([1, 1, 1], [$kinds['Music']['items'], $counts[$bins['own'][0]['key']], $counts[$kinds['All footage']['key']]]);
    }

    public function test_bins_lie_in_each_other_and_stand_where_they_are_put(): void
    {
        $this->as();
        [$ines, $wheel, $ideas] = [$this->make('For Ines'), $this->make('Wheel'), $this->make('Ideas')];
        $place = fn(string $bin, ?string $parent, ?string $before = null) => $this->putJson(
            $this->at("bins/$bin/place"),
            compact('parent', 'before'),
        );
        $place($wheel, $ines)->assertOk();
        $place($ideas, $ines, $wheel)->assertOk();
        self::assertSame(['For Ines', '· Ideas', '· Wheel'], $this->tree());
        $place($ines, $wheel)->assertStatus(422)->assertJsonPath('code', 'bin.inside_itself');
        $this->postJson($this->at('undo'));
        self::assertSame(['For Ines', '· Wheel', 'Ideas'], $this->tree());
        $this->make('Wheel');
        $place($wheel, null)->assertStatus(422)->assertJsonPath('code', 'bin.taken');
        $this->patchJson($this->at("bins/$ines"), ['colour' => 'teal'])->assertOk();
        self::assertSame('teal', $this->getJson($this->at('bins'))->json('own.0.colour'));
        $this->patchJson($this->at("bins/$ines"), ['colour' => 'url(x)'])->assertStatus(422);
    }

    public function test_bins_that_undo_left_inside_each_other_are_still_shown(): void
    {
        $this->as();
        [$one, $two] = [$this->make('One'), $this->make('Two')];
        $ids = DB::table('bins')->pluck('id', 'ulid');
        DB::table('bins')
            ->where('ulid', $one)
            ->update(['parent_id' => $ids[$two]]);
        DB::table('bins')
            ->where('ulid', $two)
            ->update(['parent_id' => $ids[$one]]);
        self::assertSame(['One', 'Two'], self::sorted(array_column($this->getJson($this->at('bins'))->json('own'), 'name')));
    }

    public function test_a_bin_is_read_in_the_order_that_is_asked_for(): void
    {
        $wide = $this->take('7', 1, ['size' => 'Wide', 'notes' => 'b']);
        $close = $this->take('3', 1, ['size' => 'Close', 'notes' => 'c']);
        $odd = $this->take('5', 1, ['size' => 'through the rope', 'notes' => 'a']);
        $this->clip('late', 'A', 90, 10, $close);
        $this->clip('early', 'B', 10, 30, $wide);
        $this->clip('middle', 'A', 50, 20, $odd);
        $this->as();
        foreach (
            [
                'slate' => ['late', 'middle', 'early'],
                'timecode' => ['early', 'middle', 'late'],
                'size' => ['early', 'late', 'middle'],
                'length' => ['late', 'middle', 'early'],
                'name' => ['early', 'late', 'middle'],
                'device' => ['late', 'middle', 'early'],
                'notes' => ['middle', 'early', 'late'],
                'nonsense; DROP' => ['late', 'middle', 'early'],
            ]
            as $order => $names
        ) {
            self::assertSame($names, $this->names('all', 'order=' . rawurlencode($order)), $order);
        }
        self::assertSame(['early', 'middle', 'late'], $this->names('all', 'order=length&down=1'));
        self::assertSame(['7/1', '3/1', '5/1'], $this->names('all', 'order=size&takes=1'), 'the widest of each setup at once');
    }

    public function test_a_bin_is_narrowed_to_days_and_devices(): void
    {
        $second = ShootDayFactory::new()->createOne(['production_id' => $this->production->id, 'number' => 2]);
        $take = $this->take('3', 1);
        $this->clip('one', 'A', 0, 10, $take);
        $this->clip('two', 'B', 0, 10, $take);
        $this->clip('three', 'A', 0, 10, more: ['shoot_day_id' => $second->id]);
        $this->as();
        self::assertSame(['three'], $this->names('all', "days[]=$second->ulid"));
        self::assertSame(['two'], $this->names('all', 'devices[]=B'));
        self::assertSame(['3/1'], $this->names('all', 'devices[]=B&takes=1'));
        self::assertSame([], $this->names('all', "devices[]=B&days[]=$second->ulid"));
    }

    public function test_how_a_person_looks_at_a_bin_is_theirs_and_kept(): void
    {
        $this->clip('one', 'A', 0, 10, $this->take('12-14', 1, ['scene' => '12-14']));
        $view = [
            'show' => 'pictures',
            'order' => 'size',
            'down' => true,
            'takes' => false,
            'days' => [],
            'devices' => ['A'],
            'columns' => [['key' => 'name', 'width' => 90, 'shown' => true]],
        ];
        $this->as(Role::Reviewer)->putJson($this->at('bins/' . rawurlencode('scene:12-14') . '/arrangement'), $view)->assertOk();
        self::assertSame($view, $this->getJson($this->at('bins'))->json('views')['scene:12-14']);
        $this->putJson($this->at('bins/all/arrangement'), ['show' => 'upside down'] + $view)->assertStatus(422);
        self::assertSame([], $this->as()->getJson($this->at('bins'))->json('views'));
    }

    public function test_every_entry_shows_the_cuts_it_is_in(): void
    {
        $take = $this->take('3', 1);
        $a = $this->clip('A001C001', 'A', 0, 10, $take);
        $b = $this->clip('B001C001', 'B', 0, 10, $take);
        $cut = StoredSequenceFactory::new()->createOne(['production_id' => $this->production->id, 'name' => 'Opening', 'kind' => 'cut']);
        foreach ([[$a, 2], [$b, 1]] as [$clip, $times]) {
            DB::table('sequence_uses')->insert(['sequence_id' => $cut->id, 'clip_id' => $clip->id, 'times' => $times]);
        }
        $uses = fn(string $query): array => array_map(
            static fn(array $row): array => array_map(static fn(array $use): array => [$use['name'], $use['times']], $row['used']),
            $this->getJson($this->at("bins/scene:3/items?$query"))->json('rows'),
        );
        $this->as();
        self::assertSame([[['Opening', 2]], [['Opening', 1]]], $uses(''));
        self::assertSame([[['Opening', 3]]], $uses('takes=1'));
    }

    public function test_five_thousand_go_into_a_bin_in_one_step_and_come_out_again_by_undo(): void
    {
        $first = $this->clip('A0', 'A', 0);
        $row = array_diff_key($first->getAttributes(), ['id' => 1]);
        foreach (array_chunk(range(1, 4999), 500) as $chunk) {
            DB::table('clips')->insert(
                array_map(
                    static fn(int $n): array => ['ulid' => sprintf('%026d', $n), 'name' => "A$n", 'path_hash' => md5((string) $n)] + $row,
                    $chunk,
                ),
            );
        }
        $this->as();
        $bin = $this->make('All of them');
        $refs = $this->getJson($this->at('bins/all/refs'))->assertOk()->json('refs');
        self::assertCount(5000, $refs);
        $this->postJson($this->at("bins/$bin/items"), ['refs' => $refs])->assertJsonPath('moved', 5000);
        // How long so much is, is asked for apart from its first page.
        self::assertNull($this->getJson($this->at("bins/$bin/items?limit=1"))->json('ticks'));
        self::assertSame(5000 * 10 * Ticks::PER_SECOND, $this->getJson($this->at("bins/$bin/items?sum=1"))->json('ticks'));
        $this->deleteJson($this->at("bins/$bin/items"), ['refs' => array_slice($refs, 0, 4000)])->assertOk();
        self::assertSame(1000, $this->getJson($this->at("bins/$bin/items?limit=1"))->json('total'));
        $this->postJson($this->at('undo'))->assertOk();
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(0, $this->getJson($this->at("bins/$bin/items?limit=1"))->json('total'));
        self::assertSame(5000, $this->getJson($this->at('bins/all/items?limit=1'))->json('total'), 'no media went');
    }

    /**
     * @param  list<string>  $names
     * @return list<string>
     */
    private static function sorted(array $names): array
    {
        sort($names);

        return $names;
    }
}
