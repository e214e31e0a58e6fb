<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** The takes that a recording was split into, by their ULIDs. */
final readonly class SplitTakesAnswer
{
    /** @param  list<string>  $takes */
    public function __construct(public array $takes) {}
}
