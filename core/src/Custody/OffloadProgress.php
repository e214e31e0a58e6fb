<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

/** Where a running offload stands. Bytes count the card's own files, each once; copying runs ahead of verifying. */
final class OffloadProgress
{
    /** The file that is worked on, relative to the card, as valid UTF-8. */
    public string $path = '';

    /** @var 'copying'|'reading back' */
    public string $step = 'copying';

    /** Bytes read from the card and written, with those that an earlier run had verified. */
    public int $copiedBytes = 0;

    /** Files that are settled: verified everywhere, or a fault. */
    public int $files = 0;

    /** Bytes of the settled files. */
    public int $bytes = 0;

    /** @var list<int> bytes verified at each destination, in their order */
    public array $verifiedBytes = [];
}
