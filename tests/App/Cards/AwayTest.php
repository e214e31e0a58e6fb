<?php

declare(strict_types=1);

namespace Tests\App\Cards;

use App\Domain\Sequences\SequenceStore;
use App\Models\Bin;
use App\Models\BinItem;
use App\Models\Card;
use App\Models\Clip;
use App\Models\ClipMark;
use App\Models\Marker;
use App\Models\Placement;
use App\Models\ScreeningNote;
use App\Models\StoredSequence;
use App\Models\Subclip;
use App\Models\TakePart;
use App\Models\User;
use Cartella\Core\Time\Ticks;
use Database\Factories\StoredSequenceFactory;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\MakesMedia;
use Tests\App\TestCase;

final class AwayTest extends TestCase
{
    use MakesMedia;

    private const IXML = '<TAPE>%s</TAPE><SCENE>3</SCENE><TAKE>1</TAKE>';

    private User $user;

    protected function setUp(): void
    {
        parent::setUp();
        $this->user = $this->person();
        $this->actingAs($this->user);
    }

    private function offload(string $volume, string $roll): Card
    {
        $this->postJson($this->onDay("volumes/$volume/offload"), ['roll' => $roll, 'device' => 'S'])->assertStatus(202);

        return Card::query()->where('roll', $roll)->sole();
    }

    private function takeAway(Card $card): void
    {
        $seen = $this->getJson($this->at("cards/$card->ulid/dependents"))->assertOk()->json('total');
        $this->postJson($this->at("cards/$card->ulid/away"), ['seen' => $seen])->assertOk();
    }

    /**
     * One of everything that can point at a clip.
     *
     * @return array<string, class-string<\Illuminate\Database\Eloquent\Model>> by the table that holds it
     */
    private function pointAt(Clip $clip): array
    {
        $second = Ticks::PER_SECOND;
        $take = $this->take('3', 7);
        $bin = Bin::query()->create(['production_id' => $this->production->id, 'name' => 'Kept']);
        $subclip = $clip->subclips()->create(['name' => 'the turn', 'in_ticks' => $second, 'out_ticks' => 2 * $second]);
        $clip->subclips()->create(['name' => 'boom', 'channels' => [1]]);
        $clip->markers()->create(['kind' => 'person', 'in_ticks' => $second, 'name' => 'gull', 'user_id' => $this->user->id]);
        $clip->parts()->create(['take_id' => $take->id, 'said_by' => 'person']);
        ClipMark::query()->create(['clip_id' => $clip->id, 'user_id' => $this->user->id, 'in_ticks' => 5, 'out_ticks' => 9]);
        ScreeningNote::query()->create([
            'take_id' => $take->id,
            'clip_id' => $clip->id,
            'user_id' => $this->user->id,
            'at_ticks' => 3,
            'text' => 'better',
        ]);
        foreach (
            [
                ['clip_id' => $clip->id, 'ref' => "clip:$clip->ulid"],
                ['clip_id' => $clip->id, 'ref' => sprintf('clip:%s#%d-%d', $clip->ulid, $second, 2 * $second)],
                ['subclip_id' => $subclip->id, 'ref' => "subclip:$subclip->ulid"],
                ['take_id' => $take->id, 'ref' => "take:$take->ulid"],
            ]
            as $item
        ) {
            BinItem::query()->create(['bin_id' => $bin->id] + $item);
        }
        $this->place($clip, 33_000, 'hand');
        app(SequenceStore::class)->indexUses(
            StoredSequenceFactory::new()
                ->showing([$clip->ulid])
                ->createOne(['production_id' => $this->production->id])
                ->refresh(),
        );

        return [
            'subclips' => Subclip::class,
            'markers' => Marker::class,
            'take_parts' => TakePart::class,
            'clip_marks' => ClipMark::class,
            'screening_notes' => ScreeningNote::class,
            'bin_items' => BinItem::class,
            'placements' => Placement::class,
            'sequences' => StoredSequence::class,
        ];
    }

    /** @return list<array<string, mixed>> every row that points at something */
    private static function rows(array $tables): array
    {
        $rows = [];
        foreach ([...array_keys($tables), 'sequence_uses'] as $table) {
            foreach (
                DB::table($table)
                    ->orderBy($table === 'sequence_uses' ? 'clip_id' : 'id')
                    ->get()
                as $row
            ) {
                $rows[] = [$table] + array_diff_key((array) $row, ['updated_at' => 1]);
            }
        }

        return $rows;
    }

    /** @return array<string, array{string, string}> how the media that come back differ, and by what they are known */
    public static function ways(): array
    {
        return [
            'every byte, under another name' => ['renamed', 'hash'],
            'written anew, of the same reel' => ['rewritten', 'timecode'],
            'name and length only' => ['bare', 'name'],
        ];
    }

    #[DataProvider('ways')]
    public function test_whatever_points_at_a_clip_finds_it_when_its_media_come_back(string $how, string $by): void
    {
        $stage = $this->stage(4, 1);
        $this->recorder('S001/3T1.wav', $stage, 33_000, sprintf(self::IXML, 'S001'));
        $card = $this->offload('S001', 'S001');
        $clip = Clip::query()->sole();
        $tables = $this->pointAt($clip);
        $before = self::rows($tables);
        $this->takeAway($card);

        File::moveDirectory("$this->folder/bench/S001", "$this->folder/old");
        match ($how) {
            'renamed' => File::copyDirectory("$this->folder/old", "$this->folder/bench/DRIVE") &&
                rename("$this->folder/bench/DRIVE/3T1.wav", "$this->folder/bench/DRIVE/other name.wav"),
            'rewritten' => $this->recorder('DRIVE/new.wav', $this->stage(4, 2), 33_000, sprintf(self::IXML, 'S001')),
            default => $this->recorder('DRIVE/3T1.wav', $this->stage(4, 3), 40_000, sprintf(self::IXML, 'X9')),
        };
        $back = $this->offload('DRIVE', 'S001-again');
        $again = Clip::query()->sole();
        self::assertSame([$clip->id, $back->id, null], [$again->id, $again->card_id, $again->away_at]);
        self::assertSame($before, self::rows($tables));
        $told = $this->getJson($this->at("cards/$back->ulid"))->assertOk()->json('found');
        self::assertSame(
            [[$clip->ulid, $by, 'S001']],
            array_map(static fn(array $one): array => [$one['clip'], $one['by'], $one['was']], $told),
        );
        self::assertStringContainsString(
            '1 found again by',
            (string) $this->production->tasks()->where('kind', 'catalogue')->latest('id')->first()?->result['message'],
        );
    }

    public function test_the_same_card_brings_its_clips_back_and_so_do_one_step_back_and_the_button(): void
    {
        $this->recorder('S001/3T1.wav', $this->stage(2, 1), 33_000, sprintf(self::IXML, 'S001'));
        $card = $this->offload('S001', 'S001');
        $here = fn(): array => [
            Card::query()->sole()->away_at === null,
            Clip::query()->whereNull('clips.away_at')->count(),
            Clip::query()->count(),
        ];
        $this->takeAway($card);
        self::assertSame([false, 0, 1], $here());
        self::assertSame('new', $this->getJson($this->onDay('cards'))->json('volumes.0.state'), 'it may be offloaded again');
        $this->offload('S001', 'S001');
        self::assertSame([true, 1, 1], $here());
        $this->takeAway($card);
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame([true, 1, 1], $here());
        $this->takeAway($card);
        $this->postJson($this->at("cards/$card->ulid/back"))->assertOk();
        self::assertSame([true, 1, 1], $here());
    }

    public function test_a_card_that_comes_back_does_not_bring_what_a_colleague_took_away_by_itself(): void
    {
        $this->recorder('S001/3T1.wav', $this->stage(2, 1), 33_000, sprintf(self::IXML, 'S001'));
        $this->recorder('S001/3T2.wav', $this->stage(2, 2), 36_000, sprintf(self::IXML, 'S001'));
        $card = $this->offload('S001', 'S001');
        $first = Clip::query()->where('name', '3T1')->sole();
        $this->postJson($this->at('away'), ['clips' => [$first->ulid], 'seen' => 1000])->assertOk();
        self::assertSame(1, $this->getJson($this->onDay('cards'))->json('cards.0.clips'));
        $this->travel(1)->hours();
        $this->takeAway($card);
        self::assertSame(1, $this->getJson($this->onDay('cards'))->json('away.0.clips'), 'only those that went with it');
        $this->postJson($this->at("cards/$card->ulid/back"))->assertOk();
        self::assertSame(['3T2'], Clip::query()->whereNull('away_at')->pluck('name')->all());
    }

    public function test_what_depends_on_it_is_said_first_and_what_came_since_is_asked_about(): void
    {
        $clip = $this->clip('A001C001', 'A', 0);
        $this->pointAt($clip);
        $found = $this->postJson($this->at('dependents'), ['clips' => [$clip->ulid]])
            ->assertOk()
            ->json();
        self::assertSame(
            [1, 1, 2, 1, 1, 1, 1, ['Kept'], 1],
            [
                $found['clips'],
                $found['takes'],
                $found['subclips'],
                $found['markers'],
                $found['marks'],
                $found['notes'],
                $found['placed'],
                $found['bins'],
                $found['sequences'][0]['times'],
            ],
        );
        $clip->subclips()->create(['name' => 'a colleague\'s', 'in_ticks' => 0, 'out_ticks' => 9]);
        $body = ['clips' => [$clip->ulid], 'seen' => $found['total']];
        $this->postJson($this->at('away'), $body)->assertStatus(409)->assertJsonPath('code', 'away.more');
        $this->postJson($this->at('away'), ['seen' => $found['total'] + 1] + $body)->assertOk();
        self::assertNotNull($clip->refresh()->away_at);
    }

    public function test_a_clip_that_was_taken_away_is_in_no_list_of_footage_and_still_in_the_bins_it_was_put_into(): void
    {
        $clip = $this->clip('A001C001', 'A', 0);
        $stays = $this->clip('A001C002', 'A', 20);
        $bin = Bin::query()->create(['production_id' => $this->production->id, 'name' => 'Kept']);
        BinItem::query()->create(['bin_id' => $bin->id, 'clip_id' => $clip->id, 'ref' => "clip:$clip->ulid"]);
        $this->postJson($this->at('away'), ['clips' => [$clip->ulid], 'seen' => 9])->assertOk();
        foreach (['all', 'device:A', "day:{$this->day->ulid}", 'slate:none'] as $key) {
            $rows = $this->getJson($this->at('bins/' . rawurlencode($key) . '/items'))->assertOk()->json('rows');
            self::assertSame([$stays->ulid], array_column($rows, 'clip'), $key);
        }
        self::assertSame([true], array_column($this->getJson($this->at("bins/$bin->ulid/items"))->json('rows'), 'is_away'));
        self::assertSame([$stays->ulid], array_column($this->getJson($this->onDay('lineup'))->json('strays'), 'clip'));
        self::assertSame([$stays->ulid], array_column($this->getJson($this->onDay('log'))->json('unslated'), 'ulid'));
        self::assertSame(1, $this->getJson($this->onDay('tabs'))->json('to_place'));
        $this->getJson($this->at("clips/$clip->ulid"))
            ->assertOk()
            ->assertJsonPath('away_at', $clip->refresh()->away_at->toIso8601String());
    }

    public function test_media_that_can_still_be_reached_are_not_taken_for_those_that_came(): void
    {
        $this->recorder('S001/3T1.wav', $this->stage(2, 1), 33_000, sprintf(self::IXML, 'S001'));
        $this->offload('S001', 'S001');
        File::copyDirectory("$this->folder/bench/S001", "$this->folder/bench/COPY");
        $this->offload('COPY', 'S001-copy');
        self::assertSame(2, Clip::query()->count());
        // Both volumes are lost, and the drive of the set is copied.
        Clip::query()
            ->where('card_id', Card::query()->where('roll', 'S001-copy')->value('id'))
            ->delete();
        Card::query()->where('roll', 'S001-copy')->delete();
        File::deleteDirectory("$this->folder/one/{$this->production->name}");
        File::deleteDirectory("$this->folder/two/{$this->production->name}");
        $clip = Clip::query()->sole();
        $back = $this->offload('COPY', 'S001-drive');
        self::assertSame([$clip->id, $back->id], [Clip::query()->sole()->id, Clip::query()->sole()->card_id]);
    }
}
