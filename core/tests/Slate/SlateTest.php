<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Slate;

use Cartella\Core\Slate\SetupName;
use Cartella\Core\Slate\Slate;
use Cartella\Core\Slate\SlateOrder;
use Cartella\Core\Slate\SlateReader;
use Cartella\Core\Slate\SlateStyle;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class SlateTest extends TestCase
{
    /** @return array<string, array{string, string|null, string|null, int|null, 4?: string|null}> name, scene, setup, take, device */
    public static function names(): array
    {
        return [
            'setup and take' => ['12A-3', '12', '12A', 3],
            'with T and an underscore' => ['12A_T03', '12', '12A', 3],
            'S and T with a space' => ['S12A T3', '12', '12A', 3],
            'packed' => ['012A003', '12', '12A', 3],
            'dashes throughout' => ['12-A-3', '12', '12A', 3],
            'a slash, as people write it' => ['12A/3', '12', '12A', 3],
            'the first setup' => ['12-3', '12', '12', 3],
            'a prefixed scene' => ['A12-3', 'A12', 'A12', 3],
            'a part of a scene' => ['12pt-1', '12pt', '12pt', 1],
            'a scene shot again' => ['R12B-2', 'R12', 'R12B', 2],
            'double letters' => ['7AB-4', '7', '7AB', 4],
            'with its device' => ['3A_T03_B', '3', '3A', 3, 'B'],
            'with its extension' => ['3A-T04.wav', '3', '3A', 4],
            'a camera\'s own name has a device and no slate' => ['A003C005', null, null, null, 'A'],
            'I is not a setup letter' => ['12I-3', null, null, null],
            'O is not a setup letter' => ['12O-3', null, null, null],
            'take 0 is none' => ['12A-0', null, null, null],
            'words' => ['room tone', null, null, null],
            'a date is no slate' => ['2026-10-05', null, null, null],
            'nothing' => ['', null, null, null],
        ];
    }

    #[DataProvider('names')]
    public function test_a_name_is_read_or_left_empty_and_never_guessed(
        string $name,
        ?string $scene,
        ?string $setup,
        ?int $take,
        ?string $device = null,
    ): void {
        self::assertEquals(new Slate($scene, $setup, $take, $device), SlateReader::name($name));
    }

    public function test_slates_sort_as_they_are_shot(): void
    {
        $shot = ['3', '3A', '3B', '7', '12', '12A', '12B', '12Z', '12AA', 'A13', '13', '13A', '112'];
        $mixed = $shot;
        usort($mixed, static fn(string $x, string $y): int => strcmp(hash('md5', $x), hash('md5', $y)));
        usort($mixed, static fn(string $x, string $y): int => strcmp(SlateOrder::key($x), SlateOrder::key($y)));
        self::assertSame($shot, $mixed);
    }

    public function test_takes_sort_by_number_and_what_is_no_slate_comes_last(): void
    {
        $keys = [
            SlateOrder::key('3A', 2),
            SlateOrder::key('3A', 10),
            SlateOrder::key('3B', 1),
            SlateOrder::key(null),
            SlateOrder::key('tone'),
        ];
        $sorted = $keys;
        sort($sorted, SORT_STRING);
        self::assertSame($keys, $sorted);
    }

    public function test_a_recorders_scene_field_carries_the_setup(): void
    {
        self::assertEquals(new Slate('12', '12A', 3), SlateReader::fields('12A', '03'));
        self::assertFalse(SlateReader::fields('12A', '')->isReadable());
        self::assertFalse(SlateReader::fields(null, '3')->isReadable());
        self::assertFalse(SlateReader::fields('wild', '3')->isReadable());
    }

    public function test_a_running_number_stands_in_the_setup_with_the_scene_beside_it(): void
    {
        self::assertEquals(new Slate(null, '214', 2), SlateReader::name('214-2', SlateStyle::Number));
        self::assertEquals(new Slate('12', '214', 2), SlateReader::name('12 214 T2', SlateStyle::Number));
    }

    public function test_a_setup_written_out_is_read_back_the_same(): void
    {
        foreach (['3', '12A', 'A12', '12ptB', '7AB'] as $label) {
            self::assertSame($label, SetupName::parse($label)?->label());
        }
    }

    public function test_a_slate_that_is_typed_over_another_is_taken_apart_whatever_the_production_calls_its_setups(): void
    {
        $told = static fn(string $text): ?string => Slate::typed($text)?->label();
        self::assertSame(
            ['12A/3b', '3B/1', '12-14/2', '214/7', null, null, null, null],
            array_map($told, [' 12a 3b', '3b/1', '12-14/2', '214 / 7', 'twelve', '3B/0', '3B/1000', '3B/1 wide']),
        );
    }
}
