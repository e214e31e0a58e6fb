<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

use App\Http\ListOf;

/** The looks of the production. */
final readonly class LooksAnswer
{
    /** @param  list<LookAnswer>  $looks */
    public function __construct(#[ListOf(LookAnswer::class)] public array $looks) {}
}
