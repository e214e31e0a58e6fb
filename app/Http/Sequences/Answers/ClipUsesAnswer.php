<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Http\ListOf;

/** The reels and cuts that show a clip. */
final readonly class ClipUsesAnswer
{
    /** @param  list<ClipUseAnswer>  $uses */
    public function __construct(#[ListOf(ClipUseAnswer::class)] public array $uses) {}
}
