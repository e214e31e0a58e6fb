<?php

declare(strict_types=1);

namespace Tests\App\Bins;

use App\Models\Bin;
use App\Models\Role;
use Cartella\Core\Time\Ticks;
use Database\Factories\StoredSequenceFactory;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\TestCase;

/** The search: what finds what, and at which moment. */
final class SearchTest extends TestCase
{
    /** @return list<string> what each hit is and is called */
    private function hits(string $words): array
    {
        return array_map(
            static fn(array $hit): string => "{$hit['what']} {$hit['name']}",
            $this->getJson($this->at('search?q=' . rawurlencode($words)))->assertOk()->json('hits'),
        );
    }

    private function fill(): void
    {
        $take = $this->take('12A', 3, ['description' => 'Mara drops the ledger', 'notes' => "Boom in shot\nA gull at the end"]);
        $clip = $this->clip('A001C007', 'A', 0, 60, $take, ['label' => '12A_T03_A']);
        $clip->markers()->create(['kind' => 'person', 'in_ticks' => 40 * Ticks::PER_SECOND, 'name' => 'gull', 'note' => 'loud']);
        $clip
            ->subclips()
            ->create(['name' => 'The gull alone', 'in_ticks' => 39 * Ticks::PER_SECOND, 'out_ticks' => 44 * Ticks::PER_SECOND]);
        StoredSequenceFactory::new()->createOne(['production_id' => $this->production->id, 'name' => 'Gulls, string-out']);
        Bin::query()->create(['production_id' => $this->production->id, 'name' => 'Gull sounds']);
        // The index takes words up when they are committed, so this test cleans up behind itself.
        DB::commit();
    }

    protected function tearDown(): void
    {
        $this->production->delete();
        DB::table('users')->delete();
        DB::beginTransaction();
        parent::tearDown();
    }

    /** @return iterable<string, array{string, list<string>}> */
    public static function words(): iterable
    {
        yield 'a slate' => ['12a/3', ['take 12A/3']];
        yield 'the name a clip came with' => ['C007', ['clip 12A_T03_A']];
        yield 'the name it has now' => ['T03_A', ['clip 12A_T03_A']];
        yield 'two words, each somewhere' => ['ledger boom', ['take 12A/3']];
        yield 'one of two words that nothing has' => ['ledger 99', []];
        yield 'signs of patterns are letters' => ['100%', []];
        yield 'every sort of thing' => [
            'gull',
            ['take 12A/3', 'marker gull', 'subclip The gull alone', 'sequence Gulls, string-out', 'bin Gull sounds'],
        ];
    }

    /** @param  list<string>  $found */
    #[DataProvider('words')]
    public function test_what_words_find(string $words, array $found): void
    {
        $this->fill();
        $this->as(Role::Reviewer);
        self::assertSame($found, $this->hits($words));
    }

    public function test_a_hit_leads_to_its_moment_and_shows_the_line_it_was_found_in(): void
    {
        $this->fill();
        $hits = $this->as()->getJson($this->at('search?q=gull'))->json('hits');
        self::assertSame('A gull at the end', $hits[0]['note']);
        self::assertSame([40 * Ticks::PER_SECOND, 39 * Ticks::PER_SECOND], [$hits[1]['at_ticks'], $hits[2]['at_ticks']]);
        self::assertSame([$this->day->ulid, 'A'], [$hits[1]['day'], $hits[1]['device']]);
    }

    public function test_a_slip_of_the_fingers_is_forgiven_and_said(): void
    {
        $this->fill();
        $this->as();
        foreach (
            ['ledgre' => 'ledger', 'leger' => 'ledger', 'ledgger' => 'ledger', 'lodger' => 'ledger', 'Mora ledgre' => 'mara ledger']
            as $typed => $meant
        ) {
            $this->getJson($this->at('search?q=' . rawurlencode($typed)))
                ->assertJsonPath('meant', $meant)
                ->assertJsonPath('hits.0.name', '12A/3');
        }
        $this->getJson($this->at('search?q=ledger'))->assertJsonPath('meant', null);
        $this->getJson($this->at('search?q=wheelbarrow'))->assertJsonPath('meant', null)->assertJsonPath('hits', []);
    }

    public function test_words_that_are_in_the_index_are_found_by_their_beginnings(): void
    {
        $this->fill();
        $this->as();
        self::assertSame(['take 12A/3'], $this->hits('12a led'), 'a slate and a word');
        self::assertSame(['take 12A/3'], $this->hits('the mar'), 'words that are everywhere are words');
        self::assertSame(
            ['take 12A/3', 'marker gull', 'subclip The gull alone', 'sequence Gulls, string-out', 'bin Gull sounds'],
            $this->hits('gul'),
        );
        self::assertSame(['take 12A/3', 'clip 12A_T03_A'], $this->hits('12a'));
        self::assertSame(['clip 12A_T03_A'], $this->hits('c007'), 'letters anywhere, where nothing begins so');
    }

    public function test_another_production_finds_nothing_of_it(): void
    {
        $this->fill();
        $this->actingAs($this->person(isMember: false))->getJson($this->at('search?q=gull'))->assertNotFound();
    }
}
