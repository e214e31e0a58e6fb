<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

use App\Http\Sequences\Answers\SequenceStepAnswer;

/** What was taken back or done again, and what of it stayed as others left it. */
final readonly class UndoneAnswer
{
    /**
     * @param  list<string>  $stayed
     * @param  list<string>  $topics  what a page asks for anew
     * @param  string|null  $sequence  the cut of which it was one step, and nothing else
     * @param  SequenceStepAnswer|null  $step  how that cut went on by it
     */
    public function __construct(
        public ?string $label,
        public array $stayed,
        public int $stayed_count,
        public array $topics,
        public ?string $sequence,
        public ?SequenceStepAnswer $step,
    ) {}
}
