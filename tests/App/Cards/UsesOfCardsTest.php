<?php

declare(strict_types=1);

namespace Tests\App\Cards;

use App\Domain\Cards\ReaderWatch;
use App\Models\Card;
use App\Models\CardRelease;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Volume;
use Cartella\Core\Custody\Verify;
use Illuminate\Support\Facades\File;
use Illuminate\Testing\TestResponse;
use Tests\App\Support\MakesMedia;
use Tests\App\TestCase;

/** What a volume in a reader is to the production: new, here before, gone on with, or used again. */
final class UsesOfCardsTest extends TestCase
{
    use MakesMedia;

    protected function setUp(): void
    {
        parent::setUp();
        $this->as();
    }

    /** @param  array<string, mixed>  $more */
    private function offload(string $volume, array $more = []): TestResponse
    {
        return $this->postJson($this->onDay('volumes/' . rawurlencode($volume) . '/offload'), $more + ['roll' => $volume, 'device' => 'A']);
    }

    /** @return array<string, mixed> */
    private function volume(string $name): array
    {
        return array_column($this->getJson($this->onDay('cards'))->assertOk()->json('volumes'), null, 'name')[$name] ?? [];
    }

    private function shot(string $volume, string $name, string $content = 'picture'): void
    {
        $this->plain("$volume/$name.mov", $content);
    }

    public function test_a_volume_comes_and_goes_with_its_card(): void
    {
        $watch = app(ReaderWatch::class);
        self::assertFalse($watch->pass());
        $this->shot('A001', 'A001C001');
        self::assertTrue($watch->pass());
        self::assertSame(1, Volume::query()->sole()->survey['clips']);
        self::assertFalse($watch->pass(), 'nothing happened since');
        $this->shot('A001', 'A001C002');
        self::assertTrue($watch->pass(true), 'a file more');
        $this->shot('A001', 'A001C003');
        $this->travel(-1)->hours();
        self::assertTrue($watch->pass(), 'a file more, and the clock was set back');
        $this->travelBack();
        File::deleteDirectory($this->folder . '/bench/A001');
        self::assertTrue($watch->pass());
        self::assertSame(0, Volume::query()->count());
    }

    public function test_a_card_that_is_still_in_the_reader_is_shown_once(): void
    {
        $this->shot('A001', 'A001C001');
        self::assertSame('new', $this->volume('A001')['state']);
        $this->offload('A001')->assertStatus(202);
        self::assertSame([], $this->volume('A001'));
        self::assertTrue($this->getJson($this->onDay('cards'))->json('cards.0.on_bench'));
    }

    public function test_the_same_content_under_another_name_is_recognised_and_can_be_compared(): void
    {
        $this->shot('A001', 'A001C001');
        $this->offload('A001');
        File::copyDirectory($this->folder . '/bench/A001', $this->folder . '/bench/UNTITLED');
        $seen = $this->volume('UNTITLED');
        self::assertSame(['seen', 'A001', 1, 0], [$seen['state'], $seen['known_roll'], $seen['known_files'], $seen['new_files']]);
        $this->offload('UNTITLED', ['roll' => 'A001'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'card.seen');
        $this->offload('UNTITLED', ['roll' => 'A001', 'compare' => true])->assertStatus(202);
        $card = Card::query()->sole();
        self::assertTrue($card->isSafe());
        file_put_contents($this->folder . '/bench/UNTITLED/A001C001.mov', 'picturE');
        $this->offload('UNTITLED', ['roll' => 'A001', 'compare' => true])->assertStatus(202);
        self::assertFalse($card->refresh()->isSafe(), 'the same name and size, but not the same');
        self::assertStringContainsString('Another file of that name', $card->faults[0]['reason']);
    }

    public function test_a_card_with_more_clips_brings_them_and_has_to_be_released_anew(): void
    {
        $this->shot('A001', 'A001C001');
        $this->offload('A001');
        $card = Card::query()->sole();
        $this->postJson($this->at("cards/$card->ulid/release"), ['words' => 'one disk'])->assertOk();
        $this->shot('A001', 'A001C002');
        $grown = $this->volume('A001');
        self::assertSame(['grown', 'A001', 1, 1], [$grown['state'], $grown['roll'], $grown['known_files'], $grown['new_files']]);
        $card->update(['device_id' => $this->devices['B']->id]);
        self::assertSame('B', $this->volume('A001')['device'], 'what a person said of it before any guess');
        $tomorrow = ShootDay::query()->create(['production_id' => $this->production->id, 'number' => 2, 'date' => '2026-10-06']);
        $this->postJson($this->at("days/$tomorrow->ulid/volumes/A001/offload"), ['roll' => 'A001', 'device' => 'A'])->assertStatus(202);
        $card->refresh();
        self::assertSame($this->devices['B']->id, $card->device_id);
        self::assertSame([2, true, null], [$card->verified_files, $card->isSafe(), $card->released_at]);
        self::assertSame(1, CardRelease::query()->count(), 'the earlier release stays on record');
        self::assertSame(
            ['A001C001' => 1, 'A001C002' => 2],
            Clip::query()
                ->with('day')
                ->get()
                ->mapWithKeys(static fn(Clip $clip): array => [$clip->name => $clip->day->number])
                ->sortKeys()
                ->all(),
            'each clip is of the day it was brought in on',
        );
        self::assertSame('A001', $this->getJson($this->at("days/$tomorrow->ulid/cards"))->json('cards.0.roll'), 'a card of both days');
        self::assertTrue(Verify::folder("$this->folder/one/{$this->production->name}/Day 01/A/A001")['ok']);
    }

    public function test_a_released_card_with_other_content_is_a_new_use_under_a_roll_of_its_own(): void
    {
        $this->shot('A001', 'A001C001');
        $this->plain('A001/INDEX.TMP', 'rubbish of the camera');
        $this->offload('A001');
        $first = Card::query()->sole();
        $this->postJson($this->at("cards/$first->ulid/release"), ['words' => 'one disk'])->assertOk();
        File::delete($this->folder . '/bench/A001/A001C001.mov');
        $this->shot('A001', 'A001C101', 'of another day');
        $again = $this->volume('A001');
        self::assertSame(['reused', 'A001-2', 'A001'], [$again['state'], $again['roll'], $again['known_roll']]);
        $this->offload('A001', ['roll' => 'A001'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'card.roll_taken');
        $this->offload('A001', ['roll' => 'A001-2'])->assertStatus(202);
        self::assertNotNull($first->refresh()->released_at);
        $second = Card::query()->where('roll', 'A001-2')->sole();
        self::assertSame([2, true], [$second->use_number, $second->isSafe()]);
        self::assertSame([], $this->volume('A001'), 'it is the card in the reader now');
    }

    public function test_another_productions_cards_are_not_known_here(): void
    {
        $this->shot('A001', 'A001C001');
        $this->offload('A001');
        $other = Production::query()->create(['name' => 'Other', 'rate_num' => 24, 'rate_den' => 1]);
        $day = ShootDay::query()->create(['production_id' => $other->id, 'number' => 1, 'date' => '2026-10-05']);
        $other->users()->attach(auth()->id());
        self::assertSame(
            [],
            $this->getJson("/api/productions/$other->ulid/days/$day->ulid/cards")->json('volumes'),
            'it is the other production\'s card',
        );
        $this->deleteJson($this->at('volumes/A001/claim'))->assertOk();
        self::assertSame(
            ['new', null],
            array_values(
                array_intersect_key($this->getJson("/api/productions/$other->ulid/days/$day->ulid/cards")->json('volumes.0'), [
                    'state' => 1,
                    'known_roll' => 1,
                ]),
            ),
        );
    }

    public function test_the_record_of_a_release_says_who_when_and_on_what(): void
    {
        $this->shot('A001', 'A001C001');
        $this->offload('A001');
        $ulid = Card::query()->sole()->ulid;
        $this->postJson($this->at("cards/$ulid/release"), ['words' => 'one disk'])->assertOk();
        $this->postJson($this->at("cards/$ulid/release"), ['words' => 'one disk'])->assertOk();
        $releases = $this->getJson($this->at("cards/$ulid"))->assertOk()->json('releases');
        self::assertCount(1, $releases, 'said once');
        self::assertSame('Assistant Person', $releases[0]['by']);
        self::assertSame(
            [1, ['One', 'Two']],
            [$releases[0]['evidence']['files'], array_column($releases[0]['evidence']['copies'], 'store')],
        );
        foreach ($releases[0]['evidence']['copies'] as $copy) {
            self::assertMatchesRegularExpression('/\Ac4[1-9A-HJ-NP-Za-km-z]{88}\z/', $copy['c4']);
        }
    }

    public function test_the_bench_says_what_will_give_trouble_and_what_the_clock_says(): void
    {
        $made = static fn(string $time): string => pack('N', 8) .
            'mdat' .
            pack('N', 116) .
            'moov' .
            pack('N', 108) .
            'mvhd' .
            "\0\0\0\0" .
            pack('N', strtotime("$time UTC") + 2_082_844_800) .
            str_repeat("\0", 92);
        $this->shot('A001', 'one', $made('2026-10-05 08:52:00'));
        $this->shot('A001', 'two', $made('2026-10-05 11:40:00'));
        $this->shot('A001', 'old', $made('2026-10-02 09:00:00'));
        $this->shot('A001', 'empty', '');
        $this->shot('B001', 'unset', $made('2015-01-01 00:00:00'));
        $this->shot('A002', 'early', $made('2026-10-03 09:00:00'));
        $seen = $this->volume('A001');
        self::assertSame([1, '2026-10-05', 2], [$seen['day'], $seen['date'], $seen['problem_count']]);
        self::assertSame(['One clip is dated 2026-10-02, outside the shoot day.', 'empty.mov is empty.'], $seen['problems']);
        self::assertSame(['old.mov', 'two.mov'], [$seen['first']['name'], $seen['last']['name']]);
        self::assertSame(['Its clips are dated 2026-10-03, which is no shoot day.'], $this->volume('A002')['problems']);
        self::assertSame(['Its clock is far off: it says 2015-01-01.'], $this->volume('B001')['problems']);
    }

    public function test_the_device_is_told_by_the_recordings_and_by_earlier_cards(): void
    {
        $this->recorder('UNTITLED/a.wav', [1, 2, 3], 36_000, '<TAPE>S004</TAPE>');
        self::assertSame(['S', 'from its recordings, tape S004'], [$this->volume('UNTITLED')['device'], $this->volume('UNTITLED')['why']]);
        $this->shot('EOSCARD 01', 'x');
        $this->offload('EOSCARD 01', ['roll' => 'B001', 'device' => 'B'])->assertStatus(202);
        $this->shot('EOSCARD 02', 'y');
        self::assertSame(['B', 'like B001 before it'], [$this->volume('EOSCARD 02')['device'], $this->volume('EOSCARD 02')['why']]);
    }

    public function test_a_volume_that_is_not_there_is_told_and_not_made_up_and_the_next_try_completes_it(): void
    {
        rename($this->folder . '/two', $this->folder . '/unplugged');
        $this->shot('A001', 'A001C001');
        $this->offload('A001')->assertStatus(202);
        self::assertDirectoryDoesNotExist($this->folder . '/two');
        $card = Card::query()->sole();
        self::assertSame(['fault', 0, 'Two'], [$card->state, $card->verified_files, $card->faults[0]['destination']]);
        self::assertFileExists("$this->folder/one/{$this->production->name}/Day 01/A/A001/A001C001.mov");
        rename($this->folder . '/unplugged', $this->folder . '/two');
        $this->offload('A001')->assertStatus(202);
        self::assertTrue($card->refresh()->isSafe());
    }

    public function test_nothing_is_copied_when_no_volume_is_there(): void
    {
        rename($this->folder . '/one', $this->folder . '/x');
        rename($this->folder . '/two', $this->folder . '/y');
        $this->shot('A001', 'A001C001');
        $this->offload('A001')->assertStatus(202);
        self::assertStringContainsString(
            'None of the volumes',
            (string) $this->getJson($this->onDay('cards'))->json('cards.0.faults.0.reason'),
        );
    }

    public function test_where_cards_land_is_tried_kept_and_taken_back(): void
    {
        $query = http_build_query(['roll' => 'A003', 'device' => 'A', 'template' => '{date}/{kind} {device}/{roll}']);
        $this->getJson($this->onDay("place?$query"))->assertOk()->assertJsonPath('path', '2026-10-05/camera A/A003');
        $this->getJson($this->onDay('place?roll=A003&template=%7Bday%7D'))->assertStatus(422)->assertJsonPath('code', 'custody.template');
        $default = '{production}/{day}/{device}/{roll}';
        $this->putJson($this->at('card-template'), ['was' => $default, 'now' => '{date}/{roll}'])->assertOk();
        $this->putJson($this->at('card-template'), ['was' => $default, 'now' => '{unit}/{roll}'])->assertStatus(409);
        $this->shot('A001', 'A001C001');
        $this->offload('A001');
        self::assertFileExists("$this->folder/one/2026-10-05/A001/A001C001.mov");
        $this->postJson($this->at('undo'))->assertOk();
        $this->shot('A001', 'A001C002');
        $this->offload('A001');
        self::assertFileExists("$this->folder/one/2026-10-05/A001/A001C002.mov", 'a card stays where it is');
        $this->shot('B001', 'B001C001');
        $this->offload('B001', ['device' => 'B']);
        self::assertFileExists("$this->folder/one/{$this->production->name}/Day 01/B/B001/B001C001.mov");
    }

    public function test_a_whole_card_gets_another_device_in_one_step_that_can_be_taken_back(): void
    {
        $this->shot('A001', 'A001C001');
        $this->shot('A001', 'A001C002');
        $this->offload('A001');
        $card = Card::query()->sole();
        $letters = static fn(): array => [
            $card->refresh()->load('device')->device->letter,
            ...Clip::query()->with('device')->get()->pluck('device.letter')->all(),
        ];
        $this->putJson($this->at("cards/$card->ulid/device"), ['was' => 'A', 'device' => 'B'])
            ->assertOk()
            ->assertJsonPath('changed', 2);
        self::assertSame(['B', 'B', 'B'], $letters());
        $this->putJson($this->at("cards/$card->ulid/device"), ['was' => 'A', 'device' => 'S'])
            ->assertStatus(409)
            ->assertJsonPath('context.fields.0.theirs', 'B');
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(['A', 'A', 'A'], $letters());
        $this->putJson($this->at("cards/$card->ulid/device"), ['device' => 'Z'])->assertStatus(422);
    }
}
