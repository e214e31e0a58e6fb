<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\ListOf;

/** Takes of a day in slate order, so many from one on. */
final readonly class ReadTakesAnswer
{
    /** @param  list<ReadTakeAnswer>  $takes */
    public function __construct(public int $total, public int $from, #[ListOf(ReadTakeAnswer::class)] public array $takes) {}
}
