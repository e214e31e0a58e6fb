<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

/** How an offload ended. `$verified` counts files that are verified at every destination. */
final readonly class OffloadReport
{
    /**
     * @param  int  $files  regular files on the card
     * @param  int  $bytes  their sizes together
     * @param  list<array{path: string, reason: string, byte?: int, destination?: string}>  $faults
     * @param  list<string>  $manifests  paths, one for each destination that holds verified files
     * @param  int  $matched  files that are what the card's own lists say they are
     * @param  array<string, 'medium'|'cache'|null>  $readFrom  by destination: whether every copy was read back from the medium itself,
     *                                                          or some through the system's cache; null when none was read
     */
    public function __construct(
        public int $files,
        public int $bytes,
        public int $verified,
        public array $faults,
        public array $manifests,
        public int $matched = 0,
        public array $readFrom = [],
    ) {}
}
