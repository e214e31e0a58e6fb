<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

/** The step that an edit made; none where it changed nothing. */
final readonly class SequenceEditedAnswer
{
    public function __construct(public ?SequenceStepAnswer $step) {}
}
