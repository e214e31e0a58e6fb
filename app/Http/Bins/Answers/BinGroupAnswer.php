<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** A group of bins that fill themselves. */
final readonly class BinGroupAnswer
{
    /** @param  list<BinEntryAnswer>  $bins */
    public function __construct(public string $key, public string $name, public array $bins) {}
}
