<?php

declare(strict_types=1);

namespace Tests\App\Words;

use App\Domain\Words\WordSearch;
use App\Models\Passage;
use App\Models\Role;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Tests\App\TestCase;

/** What was said, found in all of a production. */
final class WordSearchTest extends TestCase
{
    use SaysWords;

    protected function tearDown(): void
    {
        $this->production->delete();
        DB::table('users')->delete();
        DB::beginTransaction();
        parent::tearDown();
    }

    public function test_words_phrases_and_near_misses_are_found_and_narrowed(): void
    {
        $circled = $this->take('7', 2, ['status' => 'circled']);
        $other = $this->take('12A', 1);
        $this->as(Role::Reviewer)->getJson($this->at('spoken?q='))->assertJsonPath('is_any', false);
        $first = $this->clip('T01', 'S', 8, 60, $circled);
        $second = $this->clip('T02', 'S', 100, 60, $other);
        $this->say($first, [[1, 'Then somebody has opened the sluice.', 'Mara'], [20, "I count eleven, don't I?", 'Quill']]);
        $this->say($second, [[1, 'The sluice was opened by somebody.', 'Quill']]);
        // The index takes words up when they are committed, so this test cleans up behind itself.
        DB::commit();
        $found = fn(string $query): array => $this->as(Role::Reviewer)->getJson($this->at("spoken?$query"))->assertOk()->json();
        $clips = static fn(array $answer): array => array_column($answer['hits'], 'name');
        self::assertSame(['T01', 'T02'], $clips($found('q=opened+sluice')));
        self::assertSame(['T02'], $clips($found('q=' . urlencode('"the sluice was"'))));
        self::assertSame(['T01'], $clips($found('q=' . urlencode('"I count"'))));
        self::assertSame(['T01'], $clips($found('q=' . urlencode('don’t'))));
        self::assertSame(['T01', 'T02'], $clips($found('q=slui')), 'the last word is being typed');
        self::assertSame(['T01'], $clips($found('q=I')));
        self::assertSame([], $clips($found('q=b')), 'a letter that nobody says');
        $near = $found('q=sluce');
        self::assertSame('sluice', $near['meant']);
        self::assertSame(['T01', 'T02'], $clips($near));
        self::assertSame(['T02'], $clips($found('q=sluice&speaker=Quill')));
        self::assertSame(['T01'], $clips($found('q=sluice&circled=1')));
        self::assertSame(['T02'], $clips($found('q=sluice&scene=12')));
        self::assertSame(['Mara', 'Quill'], $found('q=sluice')['speakers']);
        self::assertSame(['meant' => null, 'speakers' => ['Mara', 'Quill'], 'is_any' => true, 'more' => false, 'hits' => []], $found('q='));
        $hit = $found('q=sluice&circled=1')['hits'][0];
        self::assertSame([5], $hit['found']);
        self::assertSame('7', $hit['take']['setup']);
        foreach (['q=' . urlencode('+-*()~<>@"'), 'q=%22', 'q=' . urlencode("'; DROP TABLE passages; --"), 'q=zzzzzzzz'] as $hostile) {
            self::assertSame([], $found($hostile)['hits']);
        }
        self::assertSame(3, Passage::query()->count());
        self::assertSame([['read', 'gauge'], ['old mill']], WordSearch::parse('read "Old Mill!" gauge'));
    }

    public function test_what_is_seldom_said_among_very_much_is_found_by_the_index(): void
    {
        $clip = $this->clip('T01', 'S', 8, 60);
        $row = $this->say($clip, [[1, 'the wheel is still', 'Mara']])
            ->passages()
            ->sole()
            ->getAttributes();
        for ($n = 0; $n < 9; $n++) {
            $rows = array_map(static fn(): array => ['id' => null, 'ulid' => (string) Str::ulid()] + $row, range(1, 1000));
            DB::table('passages')->insert($rows);
        }
        $this->say($this->clip('T02', 'S', 100, 60), [[1, 'Then somebody has opened the sluice.', 'Quill']]);
        DB::commit();
        foreach (['sluice', 'somebody sluice', '"opened the sluice"', '"the sluice" has', 'slui'] as $text) {
            $found = $this->as(Role::Reviewer)->getJson($this->at('spoken?q=' . urlencode($text)))->assertOk();
            self::assertSame(['T02'], array_column($found->json('hits'), 'name'), $text);
        }
        DB::table('spoken_words')
            ->where('word', 'wheel')
            ->update(['times' => 30_000]);
        $often = $this->getJson($this->at('spoken?q=wheel'))->assertOk()->assertJsonPath('more', true);
        self::assertCount(WordSearch::MOST, $often->json('hits'));
    }
}
