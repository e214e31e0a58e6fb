<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Slate;

use Cartella\Core\Slate\Exception\InvalidPattern;
use Cartella\Core\Slate\NamePattern;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class NamePatternTest extends TestCase
{
    /** @return array<string, array{string, string}> */
    public static function patterns(): array
    {
        return [
            'setup, take and device' => ['{setup}-{take:2} {device}', '12A-03 B'],
            'a part that may miss' => ['{setup}[ {size}]', '12A'],
            'a part that is there' => ['{setup}[ {roll}]', '12A A003'],
            'words cut short' => ['{setup} {description:10}', '12A Mara turns'],
            'the counter' => ['{n:3}_{original}', '007_A003C005'],
            'what a value says is no field' => ['{status}', '{take}'],
        ];
    }

    #[DataProvider('patterns')]
    public function test_a_name_is_built_from_its_fields(string $pattern, string $name): void
    {
        $values = [
            'setup' => '12A',
            'take' => '3',
            'device' => 'B',
            'roll' => 'A003',
            'description' => 'Mara turns, drops',
            'original' => 'A003C005',
            'n' => 7,
            'size' => '',
            'status' => '{take}',
        ];
        self::assertSame(['name' => $name, 'problems' => []], NamePattern::parse($pattern)->expand($values));
    }

    public function test_a_series_take_keeps_its_letter_behind_the_zeros(): void
    {
        self::assertSame('3A-04b', NamePattern::parse('{setup}-{take:2}')->expand(['setup' => '3A', 'take' => '4b'])['name']);
    }

    public function test_what_no_file_system_takes_is_said_before(): void
    {
        $pattern = NamePattern::parse('{setup} {description}');
        $problem = static fn(string $text): string => implode('; ', $pattern->expand(['setup' => '3', 'description' => $text])['problems']);
        self::assertSame(
            ['description is empty', 'file systems refuse /', 'it has a control character', 'file systems refuse such a name'],
            array_map($problem, ['', 'in/out', "a\nb", 'wait.']),
        );
        self::assertStringContainsString('longer', $problem(str_repeat('ä', 120)));
    }

    public function test_the_same_name_twice_is_told_whatever_its_letters_and_forms(): void
    {
        $preview = NamePattern::parse('{description}')->preview(
            [['description' => 'Café'], ['description' => "cafe\u{301}"], ['description' => 'Mill']],
            ['MILL'],
        );
        self::assertStringContainsString('2 of the selection', $preview[0]['problems'][0]);
        self::assertStringContainsString('2 of the selection', $preview[1]['problems'][0]);
        self::assertStringContainsString('another has this name', $preview[2]['problems'][0]);
    }

    public function test_the_counter_starts_and_steps_as_asked(): void
    {
        self::assertSame(['010', '015'], array_column(NamePattern::parse('{n:3}')->preview([[], []], start: 10, step: 5), 'name'));
    }

    /** @return array<string, array{string}> */
    public static function mistakes(): array
    {
        return [
            'no field' => ['clip'],
            'an unknown field' => ['{lens}'],
            'an open bracket' => ['[{setup}'],
            'an open brace' => ['{setup} {'],
            'nothing' => [' '],
        ];
    }

    #[DataProvider('mistakes')]
    public function test_a_pattern_that_cannot_work_is_refused(string $pattern): void
    {
        $this->expectException(InvalidPattern::class);
        NamePattern::parse($pattern);
    }
}
