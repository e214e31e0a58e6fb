<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** A bin in the tree. */
final readonly class BinEntryAnswer
{
    /**
     * @param  int|null  $items  null for what is counted apart, such as a rule bin
     * @param  string|null  $parent  the key of the bin it lies in
     * @param  int  $depth  bins that it lies in
     */
    public function __construct(
        public string $key,
        public string $name,
        public string $note,
        public ?int $items,
        public ?string $parent,
        public int $depth,
        public ?string $colour,
        public bool $is_rule,
    ) {}
}
