<?php

declare(strict_types=1);

namespace Cartella\Core\Custody\Internal;

use Cartella\Core\Custody\Exception\UnableToVerify;
use Cartella\Core\Custody\FolderWalk;
use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\Manifest;
use Cartella\Core\Custody\ManifestEntry;
use Cartella\Core\Custody\Offload;

/**
 * One destination of a running offload: its folder, the parts that are not verified yet, and a journal of what is.
 *
 * Both lie in the manifest history while the offload is unfinished: parts under numbers, which are rubbish after any
 * stop, and a JSON line per verified file. When the disk is full or gone the destination stops and says so; the others
 * go on.
 *
 * @internal
 */
final class Destination
{
    private const JOURNAL = '.offload.jsonl';

    private const PARTS = '.offload';

    private const FULL = 'The volume is full or cannot be written any more.';

    private const IN_THE_WAY = 'Another file of that name is already there; it was left as it is.';

    private const LOCK_TRIES = 10;

    private const LOCK_WAIT_MICROSECONDS = 200_000;

    public readonly string $folder;

    /** Why nothing more is written here; null while it works. */
    public ?string $stopped = null;

    /** @var array<string, ManifestEntry> */
    private array $entries = [];

    /** @var array<string, array{size: int, mtime: int, hash: string, algorithm: string, at: int, modified?: string|null}> */
    private array $journalled = [];

    /** @var resource|null */
    private $journal = null;

    /** @var resource|null */
    private $stream = null;

    private int $part = 0;

    private bool $hasHistory = false;

    private ?ReadBack $reader = null;

    private ?bool $isFromMedium = null;

    public function __construct(public readonly string $root, string $name)
    {
        $this->folder = $root . '/' . $name;
    }

    public function open(bool $resume): void
    {
        $history = $this->folder . '/' . FolderWalk::HISTORY;
        if (!is_dir($history) && !@mkdir($history, 0777, true)) {
            $this->stop('The folder cannot be made there. Is the volume mounted and writable?');

            return;
        }
        $file = $history . '/' . self::JOURNAL;
        // Closed in the programs that are started meanwhile, or they would keep the lock of a run that was killed.
        $journal = @fopen($file, 'c+be');
        if ($journal === false) {
            $this->stop('Nothing can be written there.');

            return;
        }
        if (!self::lock($journal)) {
            fclose($journal);
            $this->stop(Offload::BUSY);

            return;
        }
        while ($resume && ($line = fgets($journal)) !== false) {
            $entry = json_decode($line, true);
            if (
                is_array($entry) &&
                isset($entry['path'], $entry['size'], $entry['mtime'], $entry['hash'], $entry['algorithm'], $entry['at'])
            ) {
                $path = (string) $entry['path'];
                unset($entry['path']);
                $this->journalled[$path] = $entry;
            }
        }
        if (!$resume) {
            @ftruncate($journal, 0);
        }
        fseek($journal, 0, SEEK_END);
        // A line that a kill tore must not swallow the next one.
        $this->journal = $journal;
        $this->append("\n");
        $this->hasHistory = Manifest::chain($this->folder) !== [];
        $this->clearParts();
        if (!is_dir($this->parts()) && !@mkdir($this->parts())) {
            $this->stop('Nothing can be written there.');
        }
    }

    public function makeFolder(string $path): void
    {
        // Never with its parents: they come first in the walk, and a volume that is gone must not be made up again.
        if ($this->stopped === null && !is_dir($this->folder . '/' . $path) && !@mkdir($this->folder . '/' . $path)) {
            $this->stop('A folder cannot be made there. Is the volume full, or gone?');
        }
    }

    /** The checksum from the journal when this very file was verified here by an earlier run. */
    public function verifiedHash(string $path, int $size, int $mtime, HashAlgorithm $algorithm, string $source): ?string
    {
        $entry = $this->journalled[$path] ?? null;
        if (
            $entry !== null &&
            isset($entry['modified']) &&
            $entry['modified'] !== (self::modified(Libc::stamp($source)) ?? $entry['modified'])
        ) {
            return null; // written to since, in the same second
        }
        if (
            $entry === null ||
            $entry['size'] !== $size ||
            $entry['mtime'] !== $mtime ||
            $entry['algorithm'] !== $algorithm->value ||
            @filesize($this->folder . '/' . $path) !== $size
        ) {
            return null;
        }
        $this->entries[$path] = new ManifestEntry($path, $size, $mtime, $algorithm, $entry['hash'], 'original', $entry['at']);

        return $entry['hash'];
    }

    public function has(string $path): bool
    {
        return @lstat($this->folder . '/' . $path) !== false;
    }

    public function begin(): void
    {
        if ($this->stopped !== null) {
            return;
        }
        $stream = @fopen($this->parts() . '/' . ++$this->part, 'wbe');
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
        for ($at = 0, $length = strlen($piece); $at < $length; ) {
            $written = @fwrite($this->stream, $at === 0 ? $piece : substr($piece, $at));
            if ($written === false || $written === 0) {
                $this->end(null);
                $this->stop(self::FULL);

                return;
            }
            $at += $written;
        }
    }

    /**
     * Ends the part.
     *
     * @param  int|null  $modifiedAt  Unix seconds; null when the part is not wanted
     * @return string|null the part's file; null when there is none
     */
    public function end(?int $modifiedAt): ?string
    {
        if ($this->stream === null) {
            return null;
        }
        fclose($this->stream);
        $this->stream = null;
        $file = $this->parts() . '/' . $this->part;
        if ($modifiedAt === null) {
            @unlink($file);

            return null;
        }
        @touch($file, $modifiedAt);

        return $file;
    }

    /** The disk did not take what was written. */
    public function lose(): void
    {
        $this->stop(is_dir($this->folder) ? self::FULL : 'The volume is gone.');
    }

    /** Has a part, or the file that was there already, read back behind the copying. */
    public function readBack(ManifestEntry $entry, ?string $part): void
    {
        ($this->reader ??= new ReadBack())->ask($part ?? $this->folder . '/' . $entry->path, $entry->algorithm);
    }

    /**
     * Compares what was read back, and only then gives a part its name.
     *
     * @param  string|null  $part  null where a file of that name was there already
     * @param  string|null  $stamp  of the source, see {@see Libc::stamp}
     * @return string|null what went wrong, null when the file is verified
     */
    public function settle(ManifestEntry $entry, ?string $part, ?string $stamp): ?string
    {
        $hash = $this->reader?->answer();
        $this->isFromMedium = $this->reader->isFromMedium ?? $this->isFromMedium;
        if ($part === null) {
            return $this->hold($entry, $hash, $stamp);
        }
        if ($hash !== $entry->hash) {
            if (!is_file($part)) {
                $this->lose();

                return $this->stopped;
            }
            @unlink($part);

            return 'What was written reads back differently.';
        }
        // link() refuses an existing name where rename() would replace it.
        $final = $this->folder . '/' . $entry->path;
        if (@link($part, $final)) {
            @unlink($part);
        } elseif ($this->has($entry->path) || !@rename($part, $final)) {
            @unlink($part);

            return self::IN_THE_WAY;
        }
        $this->note($entry, $stamp);

        return null;
    }

    /** @return 'medium'|'cache'|null */
    public function readFrom(): ?string
    {
        return match ($this->isFromMedium) {
            true => 'medium',
            false => 'cache',
            null => null,
        };
    }

    /** Throws a part away that was read back for nothing. */
    public function drop(?string $part): void
    {
        $this->reader?->answer();
        if ($part !== null) {
            @unlink($part);
        }
    }

    private function hold(ManifestEntry $entry, ?string $hash, ?string $stamp): ?string
    {
        $file = $this->folder . '/' . $entry->path;
        if (is_link($file) || !is_file($file) || filesize($file) !== $entry->sizeBytes || $hash !== $entry->hash) {
            return self::IN_THE_WAY;
        }
        $this->note(
            $this->hasHistory
                ? new ManifestEntry(
                    $entry->path,
                    $entry->sizeBytes,
                    $entry->modifiedAt,
                    $entry->algorithm,
                    $entry->hash,
                    'verified',
                    $entry->hashedAt,
                )
                : $entry,
            $stamp,
        );

        return null;
    }

    /** Drops what is not verified; after a whole run there is nothing left to drop. */
    public function abandon(): void
    {
        $this->end(null);
        $this->reader?->end();
        $this->reader = null;
        if ($this->journal !== null) {
            $this->clearParts();
            @rmdir($this->parts());
        }
    }

    /** Writes the manifest over what is verified; the journal goes when nothing is left to do. */
    public function close(HashAlgorithm $algorithm, int $now): ?string
    {
        if ($this->journal === null || $this->entries === []) {
            return null;
        }
        try {
            $manifest = Manifest::write($this->folder, array_values($this->entries), 'transfer', $algorithm, $now);
        } catch (UnableToVerify) {
            $this->stop('The manifest cannot be written there.');

            return null;
        }
        if ($this->stopped === null) {
            @unlink($this->folder . '/' . FolderWalk::HISTORY . '/' . self::JOURNAL);
        }
        fclose($this->journal);
        $this->journal = null;

        return $manifest;
    }

    private function note(ManifestEntry $entry, ?string $stamp): void
    {
        $this->entries[$entry->path] = $entry;
        if ($this->journal !== null) {
            $this->append(
                json_encode(
                    [
                        'path' => $entry->path,
                        'size' => $entry->sizeBytes,
                        'mtime' => $entry->modifiedAt,
                        'hash' => $entry->hash,
                        'algorithm' => $entry->algorithm->value,
                        'at' => $entry->hashedAt,
                        'modified' => self::modified($stamp),
                    ],
                    JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
                ) . "\n",
            );
        }
    }

    /** The moment of the last writing, to the nanosecond: inode numbers of some file systems change with every mount. */
    private static function modified(?string $stamp): ?string
    {
        return $stamp === null ? null : implode('.', array_slice(explode('.', $stamp), 2, 2));
    }

    private function append(string $line): void
    {
        if ($this->journal !== null && @fwrite($this->journal, $line) !== strlen($line)) {
            $this->stop(self::FULL);
        }
    }

    /**
     * A run that was killed may take a moment to go.
     *
     * @param  resource  $journal
     */
    private static function lock($journal): bool
    {
        for ($try = 0; $try < self::LOCK_TRIES; $try++) {
            if (flock($journal, LOCK_EX | LOCK_NB)) {
                return true;
            }
            usleep(self::LOCK_WAIT_MICROSECONDS);
        }

        return false;
    }

    private function parts(): string
    {
        return $this->folder . '/' . FolderWalk::HISTORY . '/' . self::PARTS;
    }

    private function clearParts(): void
    {
        foreach (@scandir($this->parts()) ?: [] as $part) {
            if (ctype_digit($part)) {
                @unlink($this->parts() . '/' . $part);
            }
        }
    }

    private function stop(string $why): void
    {
        $this->stopped ??= $why;
    }
}
