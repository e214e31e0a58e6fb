<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Custody;

use Cartella\Core\Custody\Exception\UnableToVerify;
use Cartella\Core\Custody\FolderWalk;
use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\Manifest;
use Cartella\Core\Custody\ManifestEntry;
use Cartella\Core\Tests\Support\Folder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ManifestTest extends TestCase
{
    use Folder;

    /** @param  list<string>  $paths */
    private function write(array $paths, HashAlgorithm $algorithm = HashAlgorithm::Xxh128): string
    {
        $entries = array_map(
            fn(string $path): ManifestEntry => new ManifestEntry(
                $path,
                strlen($path),
                1_790_000_000,
                $algorithm,
                $algorithm->of($path),
                'original',
                1_790_000_001,
            ),
            $paths,
        );

        return Manifest::write($this->folder, $entries, 'transfer', $algorithm, 1_790_000_002);
    }

    /** @return array<string, array{HashAlgorithm}> */
    public static function algorithms(): array
    {
        return [
            'xxh128' => [HashAlgorithm::Xxh128],
            'xxh64' => [HashAlgorithm::Xxh64],
            'md5' => [HashAlgorithm::Md5],
            'sha1' => [HashAlgorithm::Sha1],
        ];
    }

    #[DataProvider('algorithms')]
    public function test_what_is_written_is_read_back_field_by_field(HashAlgorithm $algorithm): void
    {
        $entry = Manifest::read($this->write(['ROLL/A & B <1>.mov'], $algorithm))[0];
        self::assertSame(
            ['ROLL/A & B <1>.mov', 18, 1_790_000_000, $algorithm, $algorithm->of('ROLL/A & B <1>.mov'), 'original', 1_790_000_001],
            [$entry->path, $entry->sizeBytes, $entry->modifiedAt, $entry->algorithm, $entry->hash, $entry->action, $entry->hashedAt],
        );
    }

    public function test_files_stand_in_the_order_of_their_bytes_and_every_folder_has_its_two_hashes(): void
    {
        $xml = simplexml_load_file($this->write(['b.mov', 'a/z.mov', 'a/b/c.mov', 'B.mov']));
        self::assertSame(
            ['B.mov', 'a/b/c.mov', 'a/z.mov', 'b.mov'],
            array_map(
                'strval',
                iterator_to_array($xml->hashes->hash, false) === []
                    ? []
                    : array_map(static fn($hash) => $hash->path, iterator_to_array($xml->hashes->hash, false)),
            ),
        );
        self::assertSame(
            ['a', 'a/b'],
            array_map(static fn($folder): string => (string) $folder->path, iterator_to_array($xml->hashes->directoryhash, false)),
        );
        self::assertNotSame('', (string) $xml->processinfo->roothash->content->xxh128);
    }

    public function test_a_folders_content_hash_tells_content_and_its_structure_hash_tells_names(): void
    {
        $root = static fn(string $file): array => [
            (string) simplexml_load_file($file)->processinfo->roothash->content->xxh128,
            (string) simplexml_load_file($file)->processinfo->roothash->structure->xxh128,
        ];
        $hashes = [];
        foreach (
            ['one' => ['x.mov', 'same'], 'renamed' => ['y.mov', 'same'], 'altered' => ['x.mov', 'other']]
            as $case => [$path, $content]
        ) {
            mkdir("$this->folder/$case");
            $hashes[$case] = $root(
                Manifest::write(
                    "$this->folder/$case",
                    [new ManifestEntry($path, 1, 0, HashAlgorithm::Xxh128, HashAlgorithm::Xxh128->of($content), 'original', 0)],
                    'transfer',
                    HashAlgorithm::Xxh128,
                    0,
                ),
            );
        }
        self::assertSame($hashes['one'][0], $hashes['renamed'][0]);
        self::assertNotSame($hashes['one'][1], $hashes['renamed'][1]);
        self::assertNotSame($hashes['one'][0], $hashes['altered'][0]);
        self::assertSame($hashes['one'][1], $hashes['altered'][1]);
    }

    public function test_generations_count_up_and_the_chain_lists_them_in_order(): void
    {
        $this->write(['a']);
        $this->write(['a']);
        self::assertSame(
            ['0001', '0002'],
            array_map(static fn(array $generation): string => substr($generation['path'], 0, 4), Manifest::chain($this->folder)),
        );
    }

    /** @return array<string, array{string}> */
    public static function hostile(): array
    {
        return [
            'entities' => [
                '<!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]><hashlist ' .
                'xmlns="urn:ASC:MHL:v2.0"><hashes><hash><path>&e;</path></hash></hashes></hashlist>',
            ],
            'no XML' => ['hello'],
            'cut off' => ['<hashlist xmlns="urn:ASC:MHL:v2.0"><hashes>'],
            'nothing' => [''],
        ];
    }

    #[DataProvider('hostile')]
    public function test_a_manifest_that_is_none_is_refused_by_name(string $content): void
    {
        $this->expectException(UnableToVerify::class);
        $this->expectExceptionMessage('0001_x.mhl');
        Manifest::read($this->file('ascmhl/0001_x.mhl', $content));
    }

    public function test_a_walk_of_a_folder_is_in_order_follows_no_link_and_leaves_the_history_out(): void
    {
        $this->file('b/file', 'x');
        $this->file('a', 'xx');
        $this->file('ascmhl/0001.mhl', 'x');
        $this->file('b/ascmhl', 'a file of that name deeper down is a file');
        symlink('/', $this->folder . '/c');
        $walk = array_map(static fn(array $facts): string => $facts['type'], iterator_to_array(FolderWalk::of($this->folder)));
        self::assertSame(['a' => 'file', 'b' => 'folder', 'b/ascmhl' => 'file', 'b/file' => 'file', 'c' => 'link'], $walk);
    }
}
