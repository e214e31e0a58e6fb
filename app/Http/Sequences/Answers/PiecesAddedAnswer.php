<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

/** Where in a cut the last of some new pieces ends, and the step that put them there. */
final readonly class PiecesAddedAnswer
{
    public function __construct(public int $end_ticks, public ?SequenceStepAnswer $step) {}
}
