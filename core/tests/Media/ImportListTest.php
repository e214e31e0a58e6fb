<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Media;

use Cartella\Core\Media\ImportList;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ImportListTest extends TestCase
{
    /** @return array<string, array{string}> */
    public static function hostile(): array
    {
        return [
            'above its folder' => ['../outside.wav'],
            'above, further in' => ['Music/../../outside.wav'],
            'itself' => ['Music/./cue.wav'],
            'no name between' => ['Music//cue.wav'],
            'the other slash' => ['Music\\..\\cue.wav'],
            'a line in it' => ["Music/cue\n.wav"],
            'an end in it' => ["cue.wav\0.wav"],
            'no letters' => ["cue\xff.wav"],
            'a name too long' => [str_repeat('x', 252) . '.wav'],
            'a path too long' => [str_repeat('folder/', 200) . 'cue.wav'],
            'a space that a volume drops' => ['Music /cue.wav'],
        ];
    }

    #[DataProvider('hostile')]
    public function test_a_path_that_leads_elsewhere_does_not_come_in(string $path): void
    {
        $list = ImportList::of([['path' => $path, 'size_bytes' => 10], ['path' => 'good.wav', 'size_bytes' => 10]]);
        self::assertSame([1], array_keys($list->files));
        self::assertSame([0], array_keys($list->refused));
    }

    public function test_a_file_is_no_folder_of_another(): void
    {
        $of = static fn(string ...$paths): array => array_keys(
            ImportList::of(array_map(static fn(string $path): array => ['path' => $path, 'size_bytes' => 1], $paths))->files,
        );
        self::assertSame([0], $of('cue.wav', 'CUE.wav/part.wav'));
        self::assertSame([0], $of('a.wav/b.wav/part.wav', 'a.wav/b.wav'));
        self::assertSame([0, 1], $of('a/b.wav', 'a/c/b.wav'));
    }

    public function test_only_media_with_something_in_it_comes_in_and_the_rest_is_told(): void
    {
        $list = ImportList::of([
            ['path' => '/Music/cue.wav', 'size_bytes' => 10],
            ['path' => 'Music/.DS_Store', 'size_bytes' => 10],
            ['path' => 'Music/._cue.wav', 'size_bytes' => 10],
            ['path' => 'Music/letter.pdf', 'size_bytes' => 10],
            ['path' => 'Music/empty.wav', 'size_bytes' => 0],
            ['path' => 'Music/huge.wav', 'size_bytes' => 5_000_000_000_000],
            ['path' => 'music/CUE.wav', 'size_bytes' => 10],
        ]);
        self::assertSame([0 => ['path' => 'Music/cue.wav', 'size_bytes' => 10]], $list->files);
        self::assertSame(2, $list->passed);
        self::assertSame(
            [
                'It is no picture, sound or still that is read here.',
                'It is empty.',
                'It is larger than 4 TB.',
                'Two files of the import have this name.',
            ],
            array_column($list->refused, 'reason'),
        );
    }
}
