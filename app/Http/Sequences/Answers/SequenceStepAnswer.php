<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Models\SequenceStep;

/** A change of a cut: what it is called, and what it made otherwise, as the operation `restore` says it. */
final readonly class SequenceStepAnswer
{
    /** @param  array<string, mixed>  $change  leads from the step before to this one */
    public function __construct(public int $number, public string $label, public array $change) {}

    public static function of(SequenceStep $step): self
    {
        return new self($step->number, $step->label, json_decode($step->forward, true));
    }
}
