<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** A bin in the tree. */
final readonly class BinEntryAnswer
{
    /** @param  string|null  $parent  the key of the bin it lies in */
    public function __construct(public string $key, public string $name, public string $note, public int $items, public ?string $parent) {}
}
