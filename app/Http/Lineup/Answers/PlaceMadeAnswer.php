<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** Where a clip lies now, on the clock of the day. */
final readonly class PlaceMadeAnswer
{
    public function __construct(public ?int $start_ticks) {}
}
