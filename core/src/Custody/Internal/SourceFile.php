<?php

declare(strict_types=1);

namespace Cartella\Core\Custody\Internal;

/**
 * One file of a card while it is read: in pieces, with another try where a reader stumbles, and with a word when the
 * file is not the one it was when the card was looked through.
 *
 * @internal
 */
final class SourceFile
{
    private const PIECE = 1 << 18;

    /** A try after an error reads no more than this, so that the place is told to the sector. */
    private const SMALL_PIECE = 4096;

    private const TRIES = 3;

    private const WAIT_MICROSECONDS = 50_000;

    public int $readBytes = 0;

    /** Why no more comes; null while it does. */
    public ?string $trouble = null;

    /** @var resource|null */
    private $stream = null;

    private int $inode = 0;

    /** What the file was when it was opened; null where the system does not tell to the nanosecond. */
    public ?string $stamp = null;

    private bool $stumbled = false;

    /** @param  array{type: string, size: int, mtime: int}  $facts what the walk over the card said */
    public function __construct(private readonly string $file, private readonly array $facts)
    {
        $this->stamp = Libc::stamp($file);
        if (!$this->open()) {
            $this->trouble = 'It cannot be opened.';
        }
    }

    /** The next bytes, at most 256 KiB; null at the end and when there is trouble. */
    public function next(): ?string
    {
        for ($try = 0; $this->trouble === null && $this->readBytes < $this->facts['size']; $try++) {
            error_clear_last();
            $want = min($this->stumbled ? self::SMALL_PIECE : self::PIECE, $this->facts['size'] - $this->readBytes);
            $piece = $this->stream === null ? false : @fread($this->stream, $want);
            if ($piece !== false && $piece !== '') {
                $this->readBytes += strlen($piece);
                // A short piece comes before an error or an early end; the next read tells which.
                $this->stumbled = strlen($piece) < $want;

                return $piece;
            }
            if (!$this->isSame()) {
                $this->trouble = 'It changed while it was being copied.';
            } elseif ($try + 1 >= self::TRIES) {
                $this->trouble = sprintf('It cannot be read past this byte, after %d tries.', self::TRIES);
            } else {
                $this->stumbled = true;
                usleep(self::WAIT_MICROSECONDS << $try);
                $this->open();
            }
        }
        if ($this->trouble === null && !$this->isSame()) {
            $this->trouble = 'It changed while it was being copied.';
        }

        return null;
    }

    /**
     * Whether a file is still what it was when it was opened. One that is gone with its card is not looked at.
     *
     * @param  array{size: int, mtime: int}  $facts
     */
    public static function isStill(string $file, array $facts, ?string $stamp): bool
    {
        clearstatcache(true, $file);
        $now = @lstat($file);

        return $now === false ||
            ($now['size'] === $facts['size'] && $now['mtime'] === $facts['mtime'] && ($stamp === null || $stamp === Libc::stamp($file)));
    }

    public function close(): void
    {
        if ($this->stream !== null) {
            fclose($this->stream);
            $this->stream = null;
        }
    }

    private function open(): bool
    {
        $this->close();
        $stream = @fopen($this->file, 'rbe');
        if ($stream === false) {
            return false;
        }
        stream_set_read_buffer($stream, 0);
        if ($this->inode === 0) {
            $this->inode = fstat($stream)['ino'] ?? 0;
        }
        if ($this->readBytes > 0 && fseek($stream, $this->readBytes) !== 0) {
            fclose($stream);

            return false;
        }
        $this->stream = $stream;

        return true;
    }

    private function isSame(): bool
    {
        clearstatcache(true, $this->file);
        $now = @lstat($this->file);

        return $now === false
            ? // A card that was pulled is not one that changed: that is told as a read error.
                $this->readBytes < $this->facts['size']
            : $now['size'] === $this->facts['size'] &&
                    $now['mtime'] === $this->facts['mtime'] &&
                    $now['ino'] === $this->inode &&
                    ($this->stamp === null || $this->stamp === Libc::stamp($this->file));
    }
}
