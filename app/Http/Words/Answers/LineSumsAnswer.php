<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

use App\Http\ListOf;

/** How much of each scene's script has been said, by scene; empty where nobody has listened to anything. */
final readonly class LineSumsAnswer
{
    /** @param  array<string, LineSumAnswer>  $scenes */
    public function __construct(#[ListOf(LineSumAnswer::class)] public array|object $scenes) {}
}
