<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Http\ListOf;

/** What became of a cut. */
final readonly class ComparedAnswer
{
    /** @param  list<CutChangeAnswer>  $changes */
    public function __construct(public int $same, #[ListOf(CutChangeAnswer::class)] public array $changes) {}
}
