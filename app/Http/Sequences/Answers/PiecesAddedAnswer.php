<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

/** Where in a cut the last of some new pieces ends, and the step that put them there. */
final readonly class PiecesAddedAnswer
{
    /**
     * @param  string  $rate  of the cut, as `25`
     * @param  list<string>  $other_rates  of pictures among them that have another one and are played by real time
     */
    public function __construct(public int $end_ticks, public ?SequenceStepAnswer $step, public string $rate, public array $other_rates) {}
}
