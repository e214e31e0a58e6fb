<?php

declare(strict_types=1);

namespace Tests\App\Cards;

use App\Models\Card;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\User;
use App\Models\Volume;
use Tests\App\Support\MakesMedia;
use Tests\App\TestCase;

/** Two productions at one bench: each sees and copies its own cards, and *all* never takes a card that is not surely one of them. */
final class ClaimTest extends TestCase
{
    use MakesMedia;

    private Production $other;

    private ShootDay $otherDay;

    private User $stranger;

    protected function setUp(): void
    {
        parent::setUp();
        $this->other = Production::query()->create(['name' => 'High Road', 'rate_num' => 24, 'rate_den' => 1]);
        $this->otherDay = ShootDay::query()->create(['production_id' => $this->other->id, 'number' => 1, 'date' => '2026-11-02']);
        $this->stranger = $this->person(isMember: false);
        $this->other->users()->attach($this->stranger);
        $this->as();
    }

    private function shot(string $path, string $date): void
    {
        $this->plain(
            $path,
            pack('N', 8) .
                'mdat' .
                pack('N', 116) .
                'moov' .
                pack('N', 108) .
                'mvhd' .
                "\0\0\0\0" .
                pack('N', strtotime("$date 09:00 UTC") + 2_082_844_800) .
                str_repeat("\0", 92),
        );
    }

    /** @return list<string> */
    private function bench(): array
    {
        return array_column($this->getJson($this->onDay('cards'))->assertOk()->json('volumes'), 'name');
    }

    /** @return list<string> */
    private function otherBench(): array
    {
        return array_column(
            $this->actingAs($this->stranger)
                ->getJson("/api/productions/{$this->other->ulid}/days/{$this->otherDay->ulid}/cards")
                ->assertOk()
                ->json('volumes'),
            'name',
        );
    }

    public function test_a_card_shot_on_a_day_of_one_production_is_that_ones_and_refused_elsewhere(): void
    {
        $this->shot('A001/a.mov', '2026-10-05');
        $this->shot('B001/b.mov', '2026-11-02');
        self::assertSame(['A001'], $this->bench());
        self::assertSame(['B001'], $this->otherBench());
        $this->as()
            ->postJson($this->onDay('volumes/B001/offload'), ['roll' => 'B001', 'device' => 'B'])
            ->assertNotFound();
        $this->getJson($this->onDay('volumes/B001'))->assertNotFound();
        $this->postJson($this->at('volumes/B001/claim'))->assertNotFound();
        self::assertSame(0, Card::query()->count());
    }

    public function test_a_card_that_names_its_production_is_that_ones_whatever_its_date(): void
    {
        $this->recorder('UNTITLED/a.wav', [1, 2, 3], 36_000, '<PROJECT>high road</PROJECT>');
        self::assertSame([], $this->bench());
        self::assertSame(['UNTITLED'], $this->otherBench());
    }

    public function test_a_card_that_fits_none_is_seen_by_all_until_somebody_says_it_is_theirs(): void
    {
        $this->shot('X001/a.mov', '2026-12-24');
        self::assertSame(['X001'], $this->bench());
        self::assertSame(['X001'], $this->otherBench());
        $this->as()->postJson($this->at('volumes/X001/claim'))->assertOk();
        self::assertSame([], $this->otherBench());
        $this->as()->deleteJson($this->at('volumes/X001/claim'))->assertOk();
        self::assertSame(['X001'], $this->otherBench());
    }

    public function test_what_was_given_back_is_not_taken_again_by_itself(): void
    {
        $this->shot('A001/a.mov', '2026-10-05');
        $this->bench();
        $this->deleteJson($this->at('volumes/A001/claim'))->assertOk();
        $this->bench();
        self::assertNull(Volume::query()->sole()->production_id);
    }

    public function test_all_takes_the_cards_of_the_day_and_names_those_that_something_has_to_be_asked_of(): void
    {
        $this->shot('A001/a.mov', '2026-10-05');
        $this->shot('B001/b.mov', '2026-12-24');
        $this->shot('STRANGE/c.mov', '2026-10-05');
        $this->plain('SHUTTLE/Music/cue.wav', 'x');
        $this->shot('C001/d.mov', '2026-11-02');
        $answer = $this->postJson($this->onDay('offload-all'))->assertStatus(202);
        self::assertSame(['A001'], $answer->json('started'));
        $asked = array_column($answer->json('asked'), 'why', 'name');
        self::assertSame('Nothing says which device recorded it.', $asked['STRANGE']);
        self::assertStringContainsString('no shoot day of this production', $asked['B001']);
        self::assertSame('Nothing says which production it is of.', $asked['SHUTTLE']);
        self::assertArrayNotHasKey('C001', $asked, 'another production\'s card is not even named');
        self::assertSame(['A001'], Card::query()->pluck('roll')->all());
        $this->postJson($this->at('volumes/SHUTTLE/claim'))->assertOk();
        self::assertSame(
            ['SHUTTLE'],
            $this->postJson($this->onDay('offload-all'))->json('started'),
            'folders that say what they are come in as imports',
        );
    }

    public function test_a_day_that_two_productions_have_is_asked_about(): void
    {
        ShootDay::query()->create(['production_id' => $this->other->id, 'number' => 2, 'date' => '2026-10-05']);
        $this->shot('A001/a.mov', '2026-10-05');
        self::assertSame(
            'Another production has a shoot day of that date as well.',
            $this->postJson($this->onDay('offload-all'))->json('asked.0.why'),
        );
        $this->postJson($this->onDay('volumes/A001/offload'), ['roll' => 'A001', 'device' => 'A'])->assertStatus(202);
        self::assertSame([], $this->otherBench(), 'who copies it has it');
    }

    public function test_names_of_two_productions_that_become_one_folder_do_not_share_it(): void
    {
        $this->other->update(['name' => $this->production->name . '?']);
        $this->production->update(['name' => $this->production->name . '*']);
        $this->plain('A001/a.txt', 'ours');
        $this->plain('A002/a.txt', 'theirs');
        $this->postJson($this->onDay('volumes/A001/offload'), ['roll' => 'A001', 'device' => 'A'])->assertStatus(202);
        $this->actingAs($this->stranger)
            ->putJson("/api/productions/{$this->other->ulid}/card-template", [
                'was' => '{production}/{day}/{device}/{roll}',
                'now' => '{production}/{day}/A/{roll}',
            ])
            ->assertOk();
        $this->postJson("/api/productions/{$this->other->ulid}/days/{$this->otherDay->ulid}/volumes/A002/offload", [
            'roll' => 'A001',
            'device' => null,
        ])
            ->assertStatus(422)
            ->assertJsonPath('code', 'card.folder_taken');
    }

    public function test_a_template_that_would_mix_two_productions_is_refused(): void
    {
        $this->actingAs($this->stranger)
            ->getJson("/api/productions/{$this->other->ulid}/days/{$this->otherDay->ulid}/cards")
            ->assertOk();
        $this->as()
            ->putJson($this->at('card-template'), ['was' => '{production}/{day}/{device}/{roll}', 'now' => '{day}/{roll}'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'template.shared');
    }
}
