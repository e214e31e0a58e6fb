<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Http\ListOf;

/** The cuts of a production, the one that was changed last first. */
final readonly class CutsAnswer
{
    /** @param  list<CutAnswer>  $cuts */
    public function __construct(#[ListOf(CutAnswer::class)] public array $cuts) {}
}
