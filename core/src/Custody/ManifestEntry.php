<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

/** One file in a manifest: its path below the folder, its size in bytes and its checksum with what was done. */
final readonly class ManifestEntry
{
    /** @param  'original'|'verified'|'failed'  $action */
    public function __construct(
        public string $path,
        public int $sizeBytes,
        public int $modifiedAt,
        public HashAlgorithm $algorithm,
        public string $hash,
        public string $action,
        public int $hashedAt,
    ) {}
}
