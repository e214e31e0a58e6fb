<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\Clip;
use App\Models\StoredSequence;
use App\Models\Take;

/** One thing of a package before it is written: where it lies, what it is made of, and a mark that is another when that changes. */
final readonly class PackingItem
{
    /**
     * @param  string  $key  the same for the same thing in every package
     * @param  string  $path  in the package
     * @param  int  $bytes  as far as they are known beforehand
     * @param  int|null  $channel  of a sound that is split, from 1
     */
    public function __construct(
        public string $key,
        public string $path,
        public string $mark,
        public int $bytes,
        public ?Clip $clip = null,
        public ?Take $take = null,
        public ?StoredSequence $sequence = null,
        public ?string $bin = null,
        public ?int $channel = null,
        public string $name = '',
    ) {}

    /** The part of the package that it belongs to, such as `proxies`. */
    public function part(): string
    {
        return explode(':', $this->key)[0];
    }
}
