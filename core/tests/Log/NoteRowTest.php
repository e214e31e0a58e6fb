<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Log;

use Cartella\Core\Log\NoteColumns;
use Cartella\Core\Log\NoteRow;
use Cartella\Core\Slate\Slate;
use Cartella\Core\Slate\SlateStyle;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class NoteRowTest extends TestCase
{
    /** @return array<string, array{array<string, string>, list<string>, array<string, mixed>}> cells, slates, fields */
    public static function rows(): array
    {
        return [
            'scene, letters and take' => [['scene' => '12', 'setup' => 'a', 'take' => '3'], ['12A/3'], []],
            'a setup with a space' => [['scene' => '12', 'setup' => '12 A', 'take' => 'T3'], ['12A/3'], []],
            'a mark beside the take' => [['setup' => '3A', 'take' => 'T3 (circled)'], ['3A/3'], ['status' => 'circled']],
            'a remark beside the take is a note' => [['setup' => '3A', 'take' => '3 (boom in)'], ['3A/3'], ['notes' => 'boom in']],
            'two takes in one row' => [['setup' => '3A', 'take' => '1/2'], ['3A/1', '3A/2'], []],
            'a range of takes' => [['setup' => '3A', 'take' => '1–3'], ['3A/1', '3A/2', '3A/3'], []],
            'a number as a sheet keeps it' => [['setup' => '3A', 'take' => '2.0'], ['3A/2'], []],
            'a pick-up' => [['setup' => '3A', 'take' => '5 PU'], ['3A/5'], ['is_pickup' => true]],
            'a series take' => [['setup' => '3A', 'take' => '4b'], ['3A/4b'], []],
            'the whole slate in one cell' => [['slate' => '12 A / 4'], ['12A/4'], []],
            'a star' => [['slate' => '3A-4*'], ['3A/4'], ['status' => 'circled']],
            'a ticked column' => [['setup' => '3', 'take' => '1', 'status' => 'X'], ['3/1'], ['status' => 'circled']],
            'marks in words' => [
                ['setup' => '3', 'take' => '1', 'marks' => 'MOS, tail slate'],
                ['3/1'],
                ['is_mos' => true, 'is_tail_slate' => true],
            ],
            'a size as it is abbreviated' => [['setup' => '3', 'take' => '1', 'size' => 'MCU'], ['3/1'], ['size' => 'Medium close']],
        ];
    }

    /**
     * @param  array<string, string>  $cells
     * @param  list<string>  $slates
     * @param  array<string, mixed>  $fields
     */
    #[DataProvider('rows')]
    public function test_a_row_is_read_as_its_writer_meant_it(array $cells, array $slates, array $fields): void
    {
        $row = NoteRow::read($cells, SlateStyle::Letter);
        self::assertSame([], $row?->problems);
        self::assertSame($slates, array_map(static fn(Slate $slate): string => $slate->label(), $row?->slates ?? []));
        self::assertEquals($fields, $row?->fields);
    }

    public function test_merged_cells_go_on_below(): void
    {
        $above = [];
        NoteRow::read(['scene' => '12', 'setup' => '12A', 'take' => '1'], SlateStyle::Letter, $above);
        self::assertSame(
            '12A/2',
            NoteRow::read(['scene' => '', 'setup' => '', 'take' => '2'], SlateStyle::Letter, $above)?->slates[0]->label(),
        );
        self::assertSame(
            '13/1',
            NoteRow::read(['scene' => '13', 'setup' => '', 'take' => '1'], SlateStyle::Letter, $above)?->slates[0]->label(),
            'a new scene begins with its first setup',
        );
    }

    /** @return array<string, array{string, int|string|null}> */
    public static function days(): array
    {
        return [
            'a number' => ['2', 2],
            'in words' => ['Day 2', 2],
            'of how many' => ['2/14', 2],
            'year first' => ['2026-10-05', '2026-10-05'],
            'day first' => ['5.10.2026', '2026-10-05'],
            'with strokes and two digits' => ['05/10/26', '2026-10-05'],
            'with its weekday' => ['Mon 05.10.26', '2026-10-05'],
            'no date' => ['31.02.2026', null],
        ];
    }

    #[DataProvider('days')]
    public function test_days_and_dates_are_read_day_first(string $text, int|string|null $day): void
    {
        $row = NoteRow::read(['setup' => '3', 'take' => '1', 'day' => $text], SlateStyle::Letter);
        self::assertSame($day, $row?->day);
        self::assertCount($day === null ? 1 : 0, $row->problems ?? []);
    }

    /** @return array<string, array{string, float|null, string|null}> */
    public static function times(): array
    {
        return [
            'a timecode' => ['10:42:17:08', null, '10:42:17:08'],
            'seconds of the day' => ['38537,5', 38537.5, null],
            'hours and minutes' => ['10:42', 38520.0, null],
            'with seconds' => ['10:42:17', 38537.0, null],
        ];
    }

    #[DataProvider('times')]
    public function test_times_come_with_frames_or_in_seconds(string $text, ?float $seconds, ?string $timecode): void
    {
        $row = NoteRow::read(['clip' => 'A001C001', 'time' => $text], SlateStyle::Letter);
        self::assertSame([$seconds, $timecode], [$row?->seconds, $row?->timecode]);
    }

    public function test_what_cannot_be_read_names_its_column_and_leaves_the_rest(): void
    {
        $row = NoteRow::read(
            ['setup' => '3I', 'take' => '1', 'time' => 'noon', 'status' => 'maybe', 'notes' => 'good light'],
            SlateStyle::Letter,
        );
        self::assertSame(['setup', 'time', 'status'], array_column($row->problems ?? [], 'column'));
        self::assertSame(['notes' => 'good light'], $row?->fields);
    }

    public function test_an_empty_row_is_none(): void
    {
        self::assertNull(NoteRow::read(['setup' => ' ', 'take' => "\u{A0}"], SlateStyle::Letter));
    }

    public function test_the_heading_is_found_below_titles_and_merged_cells(): void
    {
        $guess = NoteColumns::guess([
            ['Low Water', '', '', ''],
            ['', 'SLATE', '', 'NOTES'],
            ['', '', '', ''],
            ['Sc.', 'Setup', 'Tk', 'Remarks'],
            ['3', 'A', '1', 'soft'],
        ]);
        self::assertSame(['heading' => 3, 'columns' => ['scene', 'setup', 'take', 'notes']], $guess);
        self::assertSame(-1, NoteColumns::guess([['3', 'A', '1']])['heading']);
    }

    public function test_cells_are_sorted_by_what_their_columns_are_and_columns_are_named_as_in_a_sheet(): void
    {
        self::assertSame(
            ['take' => '1', 'notes' => 'gull. wind', 'size' => ''],
            NoteColumns::sorted(['1', 'gull', 'unused', 'wind'], [0 => 'take', 1 => 'notes', 3 => 'notes', 9 => 'size']),
        );
        self::assertSame(['A', 'Z', 'AA', 'AZ', 'BA'], array_map(NoteColumns::letters(...), [0, 25, 26, 51, 52]));
    }
}
