<?php

declare(strict_types=1);

namespace App\Domain\Bins;

/** How somebody looks at a bin: the order, and of which days and devices. */
final readonly class BinArrangement
{
    /**
     * @param  list<string>  $days  ULIDs; all where none is named
     * @param  list<string>  $devices  letters
     */
    public function __construct(
        public string $order = 'slate',
        public bool $isDown = false,
        public array $days = [],
        public array $devices = [],
        public bool $asTakes = false,
    ) {}
}
