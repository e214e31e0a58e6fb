<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Slate;

use Cartella\Core\Slate\Exception\InvalidPattern;
use Cartella\Core\Slate\SlatePattern;
use Cartella\Core\Slate\SlateReader;
use Cartella\Core\Slate\SlateStyle;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class SlatePatternTest extends TestCase
{
    public function test_the_list_of_realistic_names_is_read_right_and_nothing_of_it_wrongly(): void
    {
        $lines = array_slice(file(__DIR__ . '/data/names.tsv', FILE_IGNORE_NEW_LINES) ?: [], 1);
        $missed = $wrong = [];
        foreach ($lines as $line) {
            [$name, $setup, $take, $device, $part] = explode("\t", $line);
            $slate = SlateReader::name($name);
            if (
                [(string) $slate->setup, (string) $slate->take, $slate->isReadable() ? (string) $slate->device : '', $slate->part] !== [
                    $setup,
                    $take,
                    $device,
                    $part,
                ]
            ) {
                $slate->isReadable() ? ($wrong[] = $name) : ($missed[] = $name);
            }
        }
        self::assertGreaterThanOrEqual(200, count($lines));
        self::assertSame([], $wrong);
        self::assertLessThanOrEqual(0.02 * count($lines), count($missed), implode(', ', $missed));
    }

    public function test_names_as_crews_write_them_are_read_and_none_of_them_wrongly(): void
    {
        // Written down by habit before the reader was touched; the reader is not to be fitted to it.
        $lines = array_slice(file(__DIR__ . '/data/habits.tsv', FILE_IGNORE_NEW_LINES) ?: [], 1);
        $missed = $wrong = [];
        foreach ($lines as $line) {
            [$name, $setup, $take, $device, $part, $pickup] = explode("\t", $line);
            $slate = SlateReader::name($name);
            $read = [(string) $slate->setup, (string) $slate->take, $slate->isReadable() ? (string) $slate->device : ''];
            if ([...$read, $slate->part, $slate->isPickup ? '1' : ''] !== [$setup, $take, $device, $part, $pickup]) {
                $slate->isReadable() ? ($wrong[] = $name) : ($missed[] = $name);
            }
        }
        self::assertGreaterThanOrEqual(300, count($lines));
        self::assertSame([], $wrong);
        self::assertLessThanOrEqual(0.03 * count($lines), count($missed), implode(', ', $missed));
    }

    public function test_a_running_number_is_read_with_the_words_that_people_put_before_it(): void
    {
        $read = static fn(string $name): array => [
            ($slate = SlateReader::name($name, \Cartella\Core\Slate\SlateStyle::Number))->scene,
            $slate->setup,
            $slate->take,
        ];
        self::assertSame([null, '145', 2], $read('Slate 145 Take 2.mov'));
        self::assertSame(['12', '145', 2], $read('SC12_SL145_T2.wav'));
        self::assertSame(['12', '145', 2], $read('Scene 12 Slate 145 Take 2.wav'));
        self::assertSame([null, '145', 3], $read('145_T3_1.wav'));
    }

    /** @return array<string, array{string, string, string|null}> pattern, name, slate */
    public static function spellings(): array
    {
        return [
            'the production\'s letters before it' => ['LW_{setup}_T{take}', 'LW_12A_T03.wav', '12A/3'],
            'a roll before it' => ['{roll}_{setup}-{t}{take}', 'A003_12A-T3.mov', '12A/3'],
            'an optional device' => ['{setup}-{t}{take}[_{device}]', '3A-T04_B.mov', '3A/4'],
            'a fixed width' => ['{setup:3}{take:2}', '01203.wav', '12/3'],
            'folders' => ['{setup}/{any}_{take}', 'Day 1/12A/boom_03.wav', '12A/3'],
            'another spelling' => ['LW_{setup}_T{take}', 'XY_12A_T03.wav', null],
            'letters that slates leave out' => ['LW_{setup}_T{take}', 'LW_12I_T03.wav', null],
            'points mean themselves' => ['{setup}.{take}', '12Ax3', null],
        ];
    }

    #[DataProvider('spellings')]
    public function test_a_production_can_spell_its_slates_its_own_way(string $pattern, string $name, ?string $slate): void
    {
        $read = SlateReader::of([$pattern], SlateStyle::Letter)->read($name)['slate'];
        self::assertSame($slate, $read->isReadable() ? $read->label() : null);
    }

    public function test_the_first_pattern_that_fits_reads_the_name_and_is_named(): void
    {
        self::assertSame(
            'X{setup}-{take}',
            SlateReader::of(['X{setup}-{take}', '{any}{setup}-{take}'], SlateStyle::Letter)->read('X3A-2.wav')['pattern'],
        );
    }

    /** @return array<string, array{string, string}> */
    public static function mistakes(): array
    {
        return [
            'nothing' => ['', 'characters'],
            'an unknown field' => ['{setup}-{taek}', '{taek}'],
            'no take' => ['{setup}', 'needs'],
            'a bracket' => ['[{setup}-{take}', 'brackets'],
            'twice' => ['{setup}{setup}{take}', 'twice'],
            'a brace' => ['{setup}-{take', 'brace'],
        ];
    }

    #[DataProvider('mistakes')]
    public function test_a_mistake_in_a_pattern_is_named(string $pattern, string $what): void
    {
        $this->expectException(InvalidPattern::class);
        $this->expectExceptionMessageMatches('/' . preg_quote($what, '/') . '/');
        SlatePattern::parse($pattern);
    }

    public function test_a_series_letter_and_a_pick_up_belong_to_the_take(): void
    {
        $slate = SlateReader::name('3A-T04b PU.wav');
        self::assertSame(['3A/4b', true], [$slate->label(), $slate->isPickup]);
    }

    public function test_hostile_patterns_and_names_end_at_once(): void
    {
        $reader = SlateReader::of(['{any}{any}{any}{setup}-{take}'], SlateStyle::Letter);
        self::assertFalse($reader->read(str_repeat('1A', 200) . '!')['slate']->isReadable());
    }
}
