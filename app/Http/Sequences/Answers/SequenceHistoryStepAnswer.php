<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Models\SequenceStep;

/** One step of a cut, and whether it was taken back. */
final readonly class SequenceHistoryStepAnswer
{
    public function __construct(public int $number, public string $label, public ?string $by, public ?string $at, public bool $undone) {}

    /**
     * @param  iterable<SequenceStep>  $steps  the newest first
     * @return list<self> without those that only took another back
     */
    public static function all(iterable $steps): array
    {
        $list = $takenBack = [];
        foreach ($steps as $step) {
            $isUndone = isset($takenBack[$step->id]);
            if ($step->takes_back !== null) {
                // One that takes back a taking back does it again.
                if (!$isUndone) {
                    $takenBack[$step->takes_back] = true;
                }

                continue;
            }
            $list[] = new self($step->number, $step->label, $step->user?->name, $step->created_at?->toIso8601String(), $isUndone);
        }

        return $list;
    }
}
