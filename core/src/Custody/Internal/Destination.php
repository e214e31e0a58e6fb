<?php

declare(strict_types=1);

namespace Cartella\Core\Custody\Internal;

use Cartella\Core\Custody\Exception\UnableToVerify;
use Cartella\Core\Custody\FolderWalk;
use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\Manifest;
use Cartella\Core\Custody\ManifestEntry;

/**
 * One destination of a running offload: its folder, the file that is being written, and a journal of what is verified.
 *
 * The journal lies in the manifest history while the offload is unfinished, a JSON line per verified file, flushed
 * before the next file begins. When the disk is full or gone the destination stops and says so; the others go on.
 *
 * @internal
 */
final class Destination
{
    private const JOURNAL = '.offload.jsonl';

    public readonly string $folder;

    /** Why nothing more is written here; null while it works. */
    public ?string $stopped = null;

    /** @var array<string, ManifestEntry> */
    private array $entries = [];

    /** @var array<string, array{size: int, mtime: int, hash: string, algorithm: string, at: int}> */
    private array $journalled = [];

    /** @var resource|null */
    private $journal = null;

    /** @var resource|null */
    private $stream = null;

    private string $temporary = '';

    public function __construct(public readonly string $root, string $name)
    {
        $this->folder = $root.'/'.$name;
    }

    public function open(bool $resume): void
    {
        $history = $this->folder.'/'.FolderWalk::HISTORY;
        if (! is_dir($history) && ! @mkdir($history, 0777, true)) {
            $this->stop('The folder cannot be made there. Is the volume mounted and writable?');

            return;
        }
        $file = $history.'/'.self::JOURNAL;
        if ($resume) {
            foreach (@file($file, FILE_IGNORE_NEW_LINES) ?: [] as $line) {
                $entry = json_decode($line, true);
                if (is_array($entry) && isset($entry['path'], $entry['size'], $entry['mtime'], $entry['hash'], $entry['algorithm'], $entry['at'])) {
                    $this->journalled[(string) $entry['path']] = $entry;
                }
            }
        }
        $journal = @fopen($file, $resume ? 'ab' : 'wb');
        if ($journal === false) {
            $this->stop('Nothing can be written there.');

            return;
        }
        $this->journal = $journal;
    }

    public function makeFolder(string $path): void
    {
        if ($this->stopped === null && ! is_dir($this->folder.'/'.$path) && ! @mkdir($this->folder.'/'.$path, 0777, true)) {
            $this->stop('A folder cannot be made there. Is the volume full, or gone?');
        }
    }

    /** The checksum from the journal when this very file was verified here by an earlier run. */
    public function verifiedHash(string $path, int $size, int $mtime, HashAlgorithm $algorithm): ?string
    {
        $entry = $this->journalled[$path] ?? null;
        if ($entry === null || $entry['size'] !== $size || $entry['mtime'] !== $mtime || $entry['algorithm'] !== $algorithm->value
            || @filesize($this->folder.'/'.$path) !== $size) {
            return null;
        }
        $this->entries[$path] = new ManifestEntry($path, $size, $mtime, $algorithm, $entry['hash'], 'original', $entry['at']);

        return $entry['hash'];
    }

    public function has(string $path): bool
    {
        return @lstat($this->folder.'/'.$path) !== false;
    }

    public function begin(string $path): void
    {
        // A short fixed name beside the final one: a 255-byte name would leave no room for a suffix.
        $this->temporary = dirname($this->folder.'/'.$path).'/.cartella-'.hash('xxh64', $path).'.part';
        $stream = @fopen($this->temporary, 'wb');
        if ($stream === false) {
            $this->stop('Nothing can be written there. Is the volume full, or gone?');

            return;
        }
        stream_set_write_buffer($stream, 0);
        $this->stream = $stream;
    }

    public function write(string $piece): void
    {
        if ($this->stream === null) {
            return;
        }
        for ($at = 0, $length = strlen($piece); $at < $length;) {
            $written = @fwrite($this->stream, $at === 0 ? $piece : substr($piece, $at));
            if ($written === false || $written === 0) {
                $this->abandon();
                $this->stop('The volume is full or cannot be written any more.');

                return;
            }
            $at += $written;
        }
    }

    public function abandon(): void
    {
        if ($this->stream !== null) {
            fclose($this->stream);
            $this->stream = null;
            @unlink($this->temporary);
        }
    }

    /**
     * Flushes, reads back, compares, and only then gives the file its name.
     *
     * @param  array{type: string, size: int, mtime: int}  $facts
     * @return string|null what went wrong, null when the file is verified
     */
    public function finish(string $path, array $facts, string $hash, HashAlgorithm $algorithm, int $now): ?string
    {
        if ($this->stream === null) {
            return $this->stopped ?? 'It could not be written.';
        }
        $flushed = @fsync($this->stream);
        fclose($this->stream);
        $this->stream = null;
        if (! $flushed) {
            @unlink($this->temporary);
            $this->stop('The volume is full or cannot be written any more.');

            return $this->stopped;
        }
        if (@hash_file($algorithm->value, $this->temporary) !== $hash) {
            @unlink($this->temporary);

            return 'What was written reads back differently.';
        }
        touch($this->temporary, $facts['mtime']);
        // link() refuses an existing name where rename() would replace it.
        $final = $this->folder.'/'.$path;
        if (! @link($this->temporary, $final)) {
            if ($this->has($path) || ! @rename($this->temporary, $final)) {
                @unlink($this->temporary);

                return 'Another file of that name is already there; it was left as it is.';
            }
        }
        @unlink($this->temporary);
        $this->note(new ManifestEntry($path, $facts['size'], $facts['mtime'], $algorithm, $hash, 'original', $now));

        return null;
    }

    /** @param  array{type: string, size: int, mtime: int}  $facts */
    public function holds(string $path, array $facts, string $hash, HashAlgorithm $algorithm, int $now): bool
    {
        $file = $this->folder.'/'.$path;
        if (is_link($file) || ! is_file($file) || filesize($file) !== $facts['size'] || @hash_file($algorithm->value, $file) !== $hash) {
            return false;
        }
        $known = array_column(Manifest::chain($this->folder), 'path') !== [];
        $this->note(new ManifestEntry($path, $facts['size'], $facts['mtime'], $algorithm, $hash, $known ? 'verified' : 'original', $now));

        return true;
    }

    /** Writes the manifest over what is verified; the journal goes when nothing is left to do. */
    public function close(HashAlgorithm $algorithm, int $now): ?string
    {
        if ($this->journal !== null) {
            fclose($this->journal);
            $this->journal = null;
        }
        if ($this->entries === []) {
            return null;
        }
        try {
            $manifest = Manifest::write($this->folder, array_values($this->entries), 'transfer', $algorithm, $now);
        } catch (UnableToVerify) {
            $this->stop('The manifest cannot be written there.');

            return null;
        }
        if ($this->stopped === null) {
            @unlink($this->folder.'/'.FolderWalk::HISTORY.'/'.self::JOURNAL);
        }

        return $manifest;
    }

    private function note(ManifestEntry $entry): void
    {
        $this->entries[$entry->path] = $entry;
        if ($this->journal !== null) {
            fwrite($this->journal, json_encode([
                'path' => $entry->path, 'size' => $entry->sizeBytes, 'mtime' => $entry->modifiedAt,
                'hash' => $entry->hash, 'algorithm' => $entry->algorithm->value, 'at' => $entry->hashedAt,
            ], JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE)."\n");
            fflush($this->journal);
        }
    }

    private function stop(string $why): void
    {
        $this->stopped ??= $why;
    }
}
