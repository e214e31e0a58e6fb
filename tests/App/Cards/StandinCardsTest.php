<?php

declare(strict_types=1);

namespace Tests\App\Cards;

use App\Domain\Tasks\Room;
use App\Models\Card;
use App\Models\CardFile;
use Cartella\Core\Custody\Verify;
use Cartella\Standins\CardBench;
use Cartella\Standins\SpecialCards;
use Tests\App\Support\NoLookAtRoom;
use Tests\App\TestCase;

/** The cards that give trouble, as the stand-in bench inserts them. */
final class StandinCardsTest extends TestCase
{
    private CardBench $bench;

    protected function setUp(): void
    {
        parent::setUp();
        $library = $this->folder . '/demo/cards';
        foreach (
            [
                'A001' => ['A001C001.mov', 'A001C002.mov', 'A001C003.mov', 'A001C004.mov', 'A001C005.mov', 'A001C006.mov'],
                'A002' => ['A002C001.mov', 'A002C002.mov', 'A002C003.mov', 'A002C004.mov', 'A002C005.mov'],
            ]
            as $card => $clips
        ) {
            mkdir("$library/$card/ROLL", 0777, true);
            foreach ($clips as $clip) {
                $content = "$clip " . random_bytes(50_000);
                file_put_contents("$library/$card/ROLL/$clip", pack('N', 8 + strlen($content)) . 'mdat' . $content . pack('N', 8) . 'moov');
            }
        }
        $this->bench = new CardBench($library, $this->folder . '/bench', $this->folder . '/two');
        $this->as();
    }

    protected function tearDown(): void
    {
        foreach ($this->bench->inserted() as $volume) {
            $this->bench->eject($volume);
        }
        $this->bench->setStore('there');
        parent::tearDown();
    }

    private function offload(string $key, string $device = 'A'): Card
    {
        $this->bench->insert($key);
        $volume = SpecialCards::CARDS[$key][0];
        $this->postJson($this->onDay("volumes/$volume/offload"), ['roll' => $volume, 'device' => $device])->assertStatus(202);

        return Card::query()->where('roll', $volume)->sole();
    }

    public function test_a_file_that_fails_to_read_half_way_is_told_with_its_byte_and_the_rest_is_safe(): void
    {
        $card = $this->offload('unreadable', 'B');
        self::assertSame(['fault', 4, 3], [$card->state, $card->files, $card->verified_files]);
        $fault = $card->faults[0];
        self::assertSame('B010C001.mov', $fault['path']);
        self::assertStringContainsString('It cannot be read past this byte, after 3 tries.', $fault['reason']);
        $size = filesize($this->folder . '/bench/B010/B010C001.mov');
        self::assertGreaterThan(50_000, $fault['byte']);
        self::assertLessThan($size, $fault['byte']);
        self::assertSame(0, $fault['byte'] % 4096, 'told to the block');
        self::assertFileDoesNotExist("$this->folder/one/{$this->production->name}/Day 01/B/B010/B010C001.mov");
        self::assertTrue(Verify::folder("$this->folder/one/{$this->production->name}/Day 01/B/B010")['ok']);
    }

    public function test_hostile_names_all_arrive_or_are_told(): void
    {
        $card = $this->offload('hostile');
        self::assertSame([true, 13], [$card->isSafe(), $card->verified_files]);
        self::assertFileExists("$this->folder/two/{$this->production->name}/Day 01/A/H010/ROLL/two\nlines.mov");
    }

    public function test_a_link_that_leads_off_the_card_is_not_followed_and_keeps_the_card(): void
    {
        $card = $this->offload('link-out');
        self::assertSame(['fault', 2, 2], [$card->state, $card->files, $card->verified_files]);
        self::assertEqualsCanonicalizing(['L010C002.mov', 'above'], array_column($card->faults, 'path'));
        self::assertFileDoesNotExist("$this->folder/one/{$this->production->name}/Day 01/A/L010/L010C002.mov");
    }

    public function test_a_card_with_three_more_clips_and_its_duplicate_are_told_apart(): void
    {
        $this->bench->insert('A001');
        $this->postJson($this->onDay('volumes/A001/offload'), ['roll' => 'A001', 'device' => 'A'])->assertStatus(202);
        $this->bench->insert('same-as-A001');
        $this->bench->eject('A001');
        $this->bench->insert('more-on-A001');
        $states = array_column($this->getJson($this->onDay('cards'))->json('volumes'), null, 'name');
        self::assertSame(['seen', 0], [$states['COPY A001']['state'], $states['COPY A001']['new_files']]);
        self::assertSame(['grown', 3], [$states['A001']['state'], $states['A001']['new_files']]);
        $this->bench->eject('A001');
        $this->bench->insert('A001-used-again');
        self::assertSame('reused', array_column($this->getJson($this->onDay('cards'))->json('volumes'), null, 'name')['A001']['state']);
    }

    public function test_four_thousand_small_files_are_verified_one_by_one(): void
    {
        $card = $this->offload('many');
        self::assertTrue($card->isSafe());
        self::assertSame(4000, CardFile::query()->where('card_id', $card->id)->where('copies', 2)->count());
    }

    public function test_a_full_volume_stops_only_itself(): void
    {
        $this->app->instance(Room::class, new NoLookAtRoom());
        $this->bench->setStore('full');
        self::assertSame('full', $this->bench->storeState());
        $card = $this->offload('many');
        self::assertSame('fault', $card->state);
        self::assertLessThan(4000, $card->verified_files);
        self::assertSame(['Two'], array_column($card->faults, 'destination'), 'told once, with its name');
        self::assertStringContainsString('full', $card->faults[0]['reason']);
        self::assertTrue(Verify::folder("$this->folder/one/{$this->production->name}/Day 01/A/M010")['ok']);
        $this->bench->setStore('there');
        $this->postJson($this->onDay('volumes/M010/offload'), ['roll' => 'M010', 'device' => 'A'])->assertStatus(202);
        self::assertTrue($card->refresh()->isSafe());
    }

    public function test_a_card_that_still_records_is_told_and_not_taken_as_whole(): void
    {
        $card = $this->offload('still-recording');
        self::assertFalse($card->isSafe());
    }
}
