<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

use App\Http\ListOf;

/** The markers that a take carries. */
final readonly class TakeMarkersAnswer
{
    /** @param  list<TakeMarkerAnswer>  $markers */
    public function __construct(#[ListOf(TakeMarkerAnswer::class)] public array $markers) {}
}
