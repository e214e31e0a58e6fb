<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Support\OwnFolder;
use App\Support\Problem;
use Cartella\Core\Custody\FolderWalk;
use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\ManifestEntry;
use Cartella\Core\Media\Exception\UnableToReadMedia;

/**
 * The files of a package while it is written. What is copied is read back and compared; what is finished is written down, so that
 * a run that was stopped goes on behind it.
 */
final class PackedFiles
{
    private const JOURNAL = '.packed';

    private const PART = '.part';

    private const PIECE = 64 << 20;

    /** @var array<string, array{mark: string, size: int, mtime: int, hash: string}> by path */
    private array $done = [];

    /** @var resource */
    private $journal;

    public int $bytes = 0;

    /** @param  callable(int): void  $moved  bytes so far; may throw to stop */
    public function __construct(private readonly string $folder, private $moved)
    {
        $file = "$folder/" . self::JOURNAL;
        foreach (is_file($file) ? (array) file($file, FILE_IGNORE_NEW_LINES) : [] as $line) {
            $one = json_decode((string) $line, true);
            // The last line of a run that was killed may be half of one.
            if (is_array($one) && isset($one['path'], $one['mark'], $one['size'], $one['mtime'], $one['hash'])) {
                $this->done[$one['path']] = array_diff_key($one, ['path' => 0]);
            }
        }
        $journal = @fopen($file, 'ab');
        if ($journal === false) {
            throw UnableToReadMedia::program('The package', $file, 'the inbox is full or cannot be written');
        }
        $this->journal = $journal;
    }

    /** Whether a file of that mark was finished before, and is still as it was then. */
    public function has(string $path, string $mark): bool
    {
        $known = $this->done[$path] ?? null;
        $file = "$this->folder/$path";
        if ($known === null || $known['mark'] !== $mark || !is_file($file)) {
            return false;
        }
        clearstatcache(true, $file);

        return filesize($file) === $known['size'] && filemtime($file) === $known['mtime'];
    }

    /**
     * @param  string|null  $expected  the hash that the source is known by, `xxh128`; null where nobody knows
     *
     * @throws UnableToReadMedia if it cannot be copied, or what was written is not what was read
     */
    public function copy(string $source, string $path, string $mark, ?string $expected = null): void
    {
        $this->made($path, $mark, function (string $target) use ($source, $path, $expected): string {
            $in = @fopen($source, 'rb');
            if ($in === false) {
                throw UnableToReadMedia::missing($source);
            }
            $out = @fopen($target, 'wb');
            $isWritten = $out !== false;
            try {
                // The kernel copies from file to file; what came of it is read afterwards.
                while ($isWritten && !feof($in)) {
                    $moved = @stream_copy_to_stream($in, $out, self::PIECE);
                    $isWritten = $moved !== false;
                    $this->bytes += (int) $moved;
                    ($this->moved)($this->bytes);
                    if ($moved === 0) {
                        break;
                    }
                }
            } finally {
                fclose($in);
                $isWritten = $out !== false && fflush($out) && fclose($out) && $isWritten;
            }
            $read = (string) hash_file('xxh128', $source);
            if (!$isWritten || hash_file('xxh128', $target) !== $read) {
                throw UnableToReadMedia::program('The copy', $path, 'the inbox is full or cannot be written');
            }
            if ($expected !== null && $expected !== $read) {
                throw UnableToReadMedia::program('The copy', basename($source), 'the file is not what was copied from the card');
            }

            return $read;
        });
    }

    /**
     * @param  callable(string): (string|null)  $make  writes the file; gives its hash where it knows it
     *
     * @throws UnableToReadMedia
     * @throws Problem if what it is made of cannot be reached
     */
    public function made(string $path, string $mark, callable $make): void
    {
        $target = "$this->folder/$path";
        if (!is_dir(dirname($target)) && !@mkdir(dirname($target), 0775, true) && !is_dir(dirname($target))) {
            throw UnableToReadMedia::missing($target);
        }
        // A program goes by the extension, so that stays the last.
        $part = dirname($target) . '/' . self::PART . '-' . basename($target);
        $hash = $make($part) ?? (string) hash_file('xxh128', $part);
        if (!@rename($part, $target)) {
            throw UnableToReadMedia::program('The package', $path, 'the inbox is full or cannot be written');
        }
        clearstatcache(true, $target);
        $this->done[$path] = ['mark' => $mark, 'size' => (int) filesize($target), 'mtime' => (int) filemtime($target), 'hash' => $hash];
        fwrite(
            $this->journal,
            json_encode(['path' => $path] + $this->done[$path], JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE) . "\n",
        );
        fflush($this->journal);
    }

    /** @throws UnableToReadMedia */
    public function text(string $path, string $text): void
    {
        $this->made($path, hash('xxh128', $text), static function (string $target) use ($path, $text): string {
            if (@file_put_contents($target, $text) !== strlen($text)) {
                throw UnableToReadMedia::program('The package', $path, 'the inbox is full or cannot be written');
            }

            return hash('xxh128', $text);
        });
    }

    /**
     * Takes away what no part of this run is (halves of files, what a former plan had), and says what there is.
     *
     * @param  array<string, true>  $wanted  paths
     * @return list<ManifestEntry>
     */
    public function settle(array $wanted): array
    {
        fclose($this->journal);
        @unlink("$this->folder/" . self::JOURNAL);
        $entries = [];
        $now = time();
        foreach (FolderWalk::of($this->folder) as $path => $facts) {
            $path = (string) $path;
            if ($facts['type'] !== 'file') {
                continue;
            }
            if ($path === OwnFolder::MARKER) {
                continue; // until it is delivered
            }
            if (!isset($wanted[$path]) || !isset($this->done[$path])) {
                @unlink("$this->folder/$path");

                continue;
            }
            $entries[] = new ManifestEntry(
                $path,
                $facts['size'],
                $facts['mtime'],
                HashAlgorithm::Xxh128,
                $this->done[$path]['hash'],
                'original',
                $now,
            );
        }
        self::prune($this->folder);

        return $entries;
    }

    /** Folders in which nothing lies are not delivered. */
    private static function prune(string $folder): bool
    {
        $isEmpty = true;
        foreach ((array) scandir($folder) as $name) {
            if ($name === '.' || $name === '..') {
                continue;
            }
            $path = "$folder/$name";
            if (is_dir($path) && !is_link($path) && self::prune($path)) {
                @rmdir($path);
            } else {
                $isEmpty = false;
            }
        }

        return $isEmpty;
    }
}
