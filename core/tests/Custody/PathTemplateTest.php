<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Custody;

use Cartella\Core\Custody\Exception\InvalidCustody;
use Cartella\Core\Custody\PathTemplate;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PathTemplateTest extends TestCase
{
    /** @return array<string, array{string, string, string}> template, folders above, the card's own */
    public static function templates(): array
    {
        return [
            'as it comes' => [PathTemplate::DEFAULT, 'Low Water/Day 01/A', 'A003'],
            'by date, with words between' => ['{date} {unit}/{roll} ({device})', '2026-10-05 Main unit', 'A003 (A)'],
            'the roll alone' => ['/{roll}/', '', 'A003'],
        ];
    }

    #[DataProvider('templates')]
    public function test_words_in_braces_become_what_they_stand_for(string $template, string $below, string $name): void
    {
        self::assertSame(
            ['below' => $below, 'name' => $name],
            PathTemplate::parse($template)->expand([
                'production' => 'Low Water',
                'day' => 'Day 01',
                'date' => '2026-10-05',
                'unit' => 'Main unit',
                'device' => 'A',
                'kind' => 'camera',
                'roll' => 'A003',
            ]),
        );
    }

    public function test_no_value_leads_out_of_its_folder(): void
    {
        self::assertSame(
            ['below' => 'a_b/_', 'name' => 'A003'],
            PathTemplate::parse('{production}/{unit}/{roll}')->expand(['production' => 'a/b', 'unit' => '../..', 'roll' => 'A003']),
        );
    }

    /** @return array<string, array{string}> */
    public static function refused(): array
    {
        return [
            'nothing' => [''],
            'a way up' => ['../{roll}'],
            'an empty folder' => ['a//{roll}'],
            'an unknown word' => ['{colour}/{roll}'],
            'no roll at the end' => ['{roll}/{day}'],
            'a brace left open' => ['{day/{roll}'],
            'too long' => [str_repeat('x', 250) . '/{roll}'],
        ];
    }

    #[DataProvider('refused')]
    public function test_what_would_mix_cards_or_climb_is_refused(string $template): void
    {
        $this->expectException(InvalidCustody::class);
        PathTemplate::parse($template);
    }
}
