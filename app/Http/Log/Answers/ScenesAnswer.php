<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

use App\Http\ListOf;

/** The scenes of the day, by name. */
final readonly class ScenesAnswer
{
    /** @param  array<string, SheetSceneAnswer>  $scenes */
    public function __construct(#[ListOf(SheetSceneAnswer::class)] public array|object $scenes) {}
}
