<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Log;

use Cartella\Core\Log\LogLine;
use Cartella\Core\Slate\Slate;
use Cartella\Core\Slate\SlateStyle;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class LogLineTest extends TestCase
{
    /** @return array<string, array{string, string|null, array<string, mixed>}> line, slate, fields; the row is 3A/3 */
    public static function lines(): array
    {
        return [
            'all of it' => [
                '3A/4 wide, Mara turns, circled',
                '3A/4',
                ['size' => 'Wide', 'status' => 'circled', 'description' => 'Mara turns'],
            ],
            'commas between slate and size' => ['3A/4, cu, Mara', '3A/4', ['size' => 'Close', 'description' => 'Mara']],
            'small letters' => ['12b-2 ng', '12B/2', ['status' => 'ng']],
            'a space in the slate' => ['3A T4 wide', '3A/4', ['size' => 'Wide']],
            'another take of the row' => ['/7 hold', '3A/7', ['status' => 'hold']],
            'the next take' => ['+ circled', '3A/4', ['status' => 'circled']],
            'a series take' => ['/4b', '3A/4b', []],
            'the row itself' => ['Mara turns, drops the ledger', '3A/3', ['description' => 'Mara turns, drops the ledger']],
            'a size inside words stays words' => [
                'wide shot of the mill at dawn',
                '3A/3',
                ['description' => 'wide shot of the mill at dawn'],
            ],
            'keywords and a note' => [
                '#ledger, #sluice, note: boom in first 4 s',
                '3A/3',
                ['keywords' => 'ledger, sluice', 'notes' => 'boom in first 4 s'],
            ],
            'marks' => ['+ mos, tail slate, pick-up', '3A/4', ['is_mos' => true, 'is_tail_slate' => true, 'is_pickup' => true]],
            'words with a number are no slate' => ['2 boats pass', '3A/3', ['description' => '2 boats pass']],
            'nothing' => ['', '3A/3', []],
        ];
    }

    /** @param  array<string, mixed>  $fields */
    #[DataProvider('lines')]
    public function test_a_line_says_what_a_person_means(string $line, ?string $slate, array $fields): void
    {
        $read = LogLine::parse($line, SlateStyle::Letter, new Slate('3', '3A', 3));
        self::assertSame([], $read->problems);
        self::assertSame($slate, $read->slate?->label());
        self::assertEquals($fields, $read->fields);
    }

    /** @return array<string, array{string, string}> */
    public static function slips(): array
    {
        return [
            'I and O' => ['3I/4 wide', 'I or O'],
            'take 0' => ['3A/0 wide', 'count from 1'],
            'no take' => ['3A/ wide', 'no take number'],
            'no setup' => ['AB3/4 wide', 'not a setup'],
        ];
    }

    #[DataProvider('slips')]
    public function test_what_is_no_slate_is_explained_and_never_logged_as_words(string $line, string $why): void
    {
        $read = LogLine::parse($line, SlateStyle::Letter, new Slate('3', '3A', 3));
        self::assertNull($read->slate);
        self::assertStringContainsString($why, $read->problems[0]);
    }

    public function test_a_mistyped_mark_is_asked_about(): void
    {
        $read = LogLine::parse('+ Mara turns, circeld', SlateStyle::Letter, new Slate('3', '3A', 3));
        self::assertSame('Mara turns, circeld', $read->fields['description']);
        self::assertStringContainsString('did you mean circled?', $read->hints[0]);
    }

    public function test_the_next_take_needs_a_row_to_go_on_from(): void
    {
        self::assertStringContainsString('no setup', LogLine::parse('+ wide', SlateStyle::Letter)->problems[0]);
    }

    public function test_a_running_number_is_a_slate_in_that_style_only(): void
    {
        self::assertSame('214/2', LogLine::parse('214/2 wide', SlateStyle::Number)->slate?->label());
        self::assertStringContainsString('running slate number', LogLine::parse('21A/2 wide', SlateStyle::Number)->problems[0]);
    }
}
