<?php

declare(strict_types=1);

namespace Tests\App\Log;

use App\Domain\Log\DailyLog;
use App\Models\Scene;
use Database\Factories\CardFactory;
use Tests\App\TestCase;

final class DailyLogTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        Scene::query()->create(['production_id' => $this->production->id, 'name' => '3', 'heading' => 'INT. WHEEL ROOM, DAY']);
        foreach ([['12', 1, 'none'], ['3A', 2, 'circled'], ['3', 1, 'ng'], ['3A', 1, 'none']] as $number => [$setup, $take, $status]) {
            $row = $this->take($setup, $take, ['status' => $status]);
            $this->clip("A$number", 'A', 100 * $number, 60, $row);
            $this->clip("B$number", 'B', 100 * $number, 50, $row);
            $this->clip("S$number", 'S', 100 * $number, 90, $row);
        }
        CardFactory::new()
            ->roll('A001')
            ->createOne(
                $this->ours() + [
                    'state' => 'fault',
                    'device_id' => $this->devices['A']->id,
                    'files' => 9,
                    'verified_files' => 7,
                    'size_bytes' => 1234,
                ],
            );
        $this->as();
    }

    public function test_scenes_stand_in_slate_order_with_what_was_shot_of_each(): void
    {
        $facts = app(DailyLog::class)->facts($this->day);
        self::assertSame(
            [['3', 'INT. WHEEL ROOM, DAY', ['3', '3A'], 3, 1, '00:03:00'], ['12', '', ['12'], 1, 0, '00:01:00']],
            array_map(array_values(...), $facts['scenes']),
            'a take is as long as its longest camera',
        );
        self::assertSame([4, 3, 1, '00:04:00'], [$facts['takes'], $facts['setups'], $facts['circled'], $facts['running']]);
    }

    public function test_the_table_holds_scenes_cards_and_what_is_missing(): void
    {
        $lines = array_map(
            str_getcsv(...),
            explode("\r\n", trim((string) $this->get($this->onDay('daily-log.csv'))->assertOk()->getContent())),
        );
        self::assertSame(
            ['card', 'A001', 'Camera A', '', '0', '', '00:00:00', '1234', '7 of 9 files safe'],
            array_values(array_filter($lines, static fn(array $line): bool => $line[0] === 'card'))[0],
        );
        self::assertContains('A001 cannot be released', array_column($lines, 1));
    }

    public function test_the_page_is_one_however_much_is_missing(): void
    {
        for ($clip = 0; $clip < 60; $clip++) {
            $this->clip(
                "X$clip",
                'A',
                10_000 + $clip,
                1,
                more: ['kind' => 'other', 'problems' => ['Neither picture nor sound was found in it.']],
            );
        }
        $bytes = (string) $this->get($this->onDay('daily-log.pdf'))
            ->assertOk()
            ->assertHeader('Content-Type', 'application/pdf')
            ->getContent();
        self::assertMatchesRegularExpression('~/Type /Pages\s[^>]*/Count 1\b~s', $bytes);
    }
}
