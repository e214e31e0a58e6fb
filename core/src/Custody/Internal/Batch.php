<?php

declare(strict_types=1);

namespace Cartella\Core\Custody\Internal;

use Cartella\Core\Custody\ManifestEntry;

/**
 * Files that were copied and are flushed and read back together: small enough that a stop costs little, large enough
 * that the disks are never waited for file by file.
 *
 * @internal
 */
final class Batch
{
    private const BYTES = 256 << 20;

    private const FILES = 512;

    /** On slow cards a batch is what comes in this time, so that a stop never costs more. */
    private const NANOSECONDS = 1_000_000_000;

    /** @var list<array{entry: ManifestEntry, at: array<int, string|null>, done: int, stamp: string|null}> */
    public array $files = [];

    private int $bytes = 0;

    private readonly int $begun;

    public function __construct()
    {
        $this->begun = hrtime(true);
    }

    /**
     * @param  array<int, string|null>  $at  by the number of the destination: the part that was written,
     *     or null where a file of that name is there already
     * @param  int  $done  destinations at which an earlier run verified it
     * @param  string|null  $stamp  what the source was when it was opened ({@see Libc::stamp})
     */
    public function add(ManifestEntry $entry, array $at, int $done, ?string $stamp): void
    {
        $this->files[] = ['entry' => $entry, 'at' => $at, 'done' => $done, 'stamp' => $stamp];
        $this->bytes += $entry->sizeBytes;
    }

    public function isFull(): bool
    {
        return $this->bytes >= self::BYTES ||
            count($this->files) >= self::FILES ||
            ($this->files !== [] && hrtime(true) - $this->begun > self::NANOSECONDS);
    }
}
