<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

use App\Http\ListOf;

/** Where nobody speaks in a clip, and what lies between; ticks of the clip that is looked at. */
final readonly class PausesAnswer
{
    /**
     * @param  list<StretchAnswer>  $pauses
     * @param  list<StretchAnswer>  $speech
     */
    public function __construct(
        #[ListOf(StretchAnswer::class)] public array $pauses,
        #[ListOf(StretchAnswer::class)] public array $speech,
        public float $floor_db,
    ) {}
}
