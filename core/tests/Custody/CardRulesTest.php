<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Custody;

use Cartella\Core\Custody\CardUse;
use Cartella\Core\Custody\ClipGaps;
use Cartella\Core\Custody\ShotDates;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What day a card is of, whether it goes on, and what another device does not show. */
final class CardRulesTest extends TestCase
{
    private const DAYS = [1 => '2026-10-05', 2 => '2026-10-06'];

    /** @return array<string, array{array<string, int>, int|null, list<string>}> clips by date, day, problems */
    public static function dates(): array
    {
        return [
            'no date at all' => [[], null, []],
            'one day' => [['2026-10-05' => 7], 1, []],
            'past midnight' => [['2026-10-05' => 7, '2026-10-06' => 2], 1, []],
            'a clip of the day before' => [
                ['2026-10-05' => 1, '2026-10-06' => 7],
                2,
                ['One clip is dated 2026-10-05, outside the shoot day.'],
            ],
            'no shoot day' => [['2026-10-09' => 2], null, ['Its clips are dated 2026-10-09, which is no shoot day.']],
            'a clock that was never set' => [['2015-01-01' => 4], null, ['Its clock is far off: it says 2015-01-01.']],
        ];
    }

    /**
     * @param  array<string, int>  $clips
     * @param  list<string>  $problems
     */
    #[DataProvider('dates')]
    public function test_most_clips_say_the_day_and_the_rest_is_told(array $clips, ?int $day, array $problems): void
    {
        $dated = ShotDates::of($clips, self::DAYS, true);
        self::assertSame([$day, $problems], [$dated->day, $dated->problems]);
    }

    public function test_imports_and_a_production_without_days_are_left_in_peace(): void
    {
        self::assertSame([], ShotDates::of(['2026-09-20' => 2], self::DAYS, false)->problems);
        self::assertSame([], ShotDates::of(['2015-01-01' => 2], [], true)->problems);
    }

    public function test_a_card_goes_on_by_its_clips_and_not_by_its_rubbish(): void
    {
        $before = ['INDEX.TMP' => 9, 'a.mov' => 100];
        $of = static fn(array $now): array => [CardUse::of($now, $before)->known, CardUse::of($now, $before)->goesOn];
        self::assertSame([2, true], $of(['INDEX.TMP' => 9, 'a.mov' => 100, 'b.mov' => 50]));
        self::assertSame([1, false], $of(['INDEX.TMP' => 9, 'b.mov' => 50]));
        self::assertSame([0, false], $of(['a.mov' => 101]), 'the same name and another size is another clip');
        self::assertTrue(
            CardUse::of(['notes.txt' => 1, 'more.txt' => 2], ['notes.txt' => 1])->goesOn,
            'a card that never had clips goes by its files',
        );
    }

    public function test_a_gap_is_a_clip_that_nothing_runs_beside_however_long_the_others_are(): void
    {
        $clip = static fn(int $start, int $length): array => ['start' => $start, 'length' => $length];
        self::assertSame([$clip(30, 5)], ClipGaps::of([$clip(0, 10), $clip(30, 5), $clip(50, 5)], [$clip(5, 20), $clip(54, 9)]));
        self::assertSame(
            [],
            ClipGaps::of([$clip(10, 5), $clip(40, 5)], [$clip(0, 100), $clip(20, 1)]),
            'one long recording behind a short one',
        );
        self::assertSame([$clip(10, 5)], ClipGaps::of([$clip(10, 5)], [$clip(15, 5)]), 'one that begins where it ends');
        self::assertSame(
            [],
            ClipGaps::of([$clip(10, 5)], [['start' => null, 'length' => 5]]),
            'without a time there is nothing to miss it by',
        );
    }
}
