<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Media;

use Cartella\Core\Media\Reconnect;
use Cartella\Core\Media\Traits;
use PHPUnit\Framework\TestCase;

final class ReconnectTest extends TestCase
{
    /**
     * @param  array<int|string, Traits>  $gone
     * @param  array<int|string, Traits>  $came
     * @return array<int|string, string> what was found, as `gone by way`
     */
    private static function found(array $gone, array $came): array
    {
        return array_map(static fn(array $one): string => $one['gone'] . ' by ' . $one['by']->value, Reconnect::match($gone, $came));
    }

    public function test_the_surest_way_wins_and_each_is_found_once(): void
    {
        $gone = [
            'a' => new Traits('A001C001', ['xxh3:1'], 'A001', 100, 10),
            'b' => new Traits('A001C002', ['xxh3:2'], 'A001', 200, 20),
            'c' => new Traits('A001C003', ['xxh3:3'], null, 300, 30),
        ];
        // The first has another name; the second was written anew; of the third only name and length are left.
        $came = [
            1 => new Traits('renamed', ['xxh3:1'], 'A001', 200, 20),
            2 => new Traits('A001C002_new', ['xxh3:9'], 'a001', 200, 20),
            3 => new Traits('a001c003', [], null, null, 30),
            4 => new Traits('A001C009', ['xxh3:8'], 'A001', 900, 90),
        ];
        self::assertSame([1 => 'a by hash', 2 => 'b by timecode', 3 => 'c by name'], self::found($gone, $came));
    }

    public function test_where_two_would_fit_none_is_taken(): void
    {
        $gone = ['a' => new Traits('C0001', [], 'A001', 0, 10), 'b' => new Traits('C0001', [], 'B001', 0, 10)];
        self::assertSame([], self::found($gone, [1 => new Traits('C0001', [], null, null, 10)]));
        self::assertSame([1 => 'b by timecode'], self::found($gone, [1 => new Traits('C0001', [], 'B001', 0, 10)]));
        self::assertSame(
            [],
            self::found(['a' => $gone['a']], [1 => new Traits('c', [], 'A001', 0, 10), 2 => new Traits('d', [], 'A001', 0, 10)]),
        );
    }

    public function test_two_recordings_of_the_same_bytes_go_by_their_names(): void
    {
        $same = static fn(string $name): Traits => new Traits($name, ['md5:black']);
        self::assertEquals(
            [1 => 'b by hash', 2 => 'a by hash'],
            self::found(['a' => $same('slate'), 'b' => $same('end')], [1 => $same('end'), 2 => $same('SLATE')]),
        );
        self::assertSame([], self::found(['a' => $same('slate'), 'b' => $same('end')], [1 => $same('other')]));
    }

    public function test_a_span_is_the_same_only_with_all_of_its_files_in_their_order(): void
    {
        $gone = ['a' => new Traits('span', ['md5:1', 'md5:2'])];
        self::assertSame([], self::found($gone, [1 => new Traits('x', ['md5:1'])]));
        self::assertSame([], self::found($gone, [1 => new Traits('x', ['md5:2', 'md5:1'])]));
        self::assertSame([1 => 'a by hash'], self::found($gone, [1 => new Traits('x', ['md5:1', 'md5:2'])]));
    }

    public function test_nothing_is_found_by_what_nobody_knows(): void
    {
        self::assertSame([], self::found(['a' => new Traits('x')], [1 => new Traits('x')]));
    }
}
