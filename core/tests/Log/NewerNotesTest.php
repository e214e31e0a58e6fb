<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Log;

use Cartella\Core\Log\NewerNotes;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class NewerNotesTest extends TestCase
{
    /** @return array<string, array{string, array<string, array{same: int, differ: int, all: int}>, string|null}> */
    public static function files(): array
    {
        $of = static fn(int $same, int $differ, int $all): array => ['same' => $same, 'differ' => $differ, 'all' => $all];

        return [
            'mostly the same words' => ['scr 2.csv', ['monday.csv' => $of(90, 10, 100)], 'monday.csv'],
            'of the same takes, but other words' => ['camera.csv', ['script.csv' => $of(10, 90, 100)], null],
            'a few takes of many' => ['two takes.csv', ['monday.csv' => $of(4, 0, 100)], null],
            'all changed, under a name with a version' => ['Notes v2.csv', ['notes.csv' => $of(0, 3, 3)], 'notes.csv'],
            'of several the one that it speaks of most' => ['x.csv', ['a.csv' => $of(5, 0, 6), 'b.csv' => $of(50, 5, 60)], 'b.csv'],
            'another camera is no version' => ['camera B.csv', ['camera A.csv' => $of(1, 9, 10)], null],
            'nobody else' => ['x.csv', [], null],
        ];
    }

    /** @param  array<string, array{same: int, differ: int, all: int}>  $others */
    #[DataProvider('files')]
    public function test_a_newer_version_is_known_by_its_words_or_its_name(string $name, array $others, ?string $older): void
    {
        self::assertSame($older, NewerNotes::of($name, $others));
    }
}
