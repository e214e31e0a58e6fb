<?php

declare(strict_types=1);

namespace App\Http\Assembly\Answers;

use App\Http\ListOf;
use App\Http\Sequences\Answers\CutAnswer;
use App\Models\StoredSequence;

/** The events of a day, and the cuts that were begun of them. */
final readonly class EventsAnswer
{
    /**
     * @param  list<EventAnswer>  $events
     * @param  list<CutAnswer>  $cuts
     */
    public function __construct(#[ListOf(EventAnswer::class)] public array $events, #[ListOf(CutAnswer::class)] public array $cuts) {}

    /**
     * @param  iterable<StoredSequence>  $cuts
     * @return list<CutAnswer>
     */
    public static function cutsOf(iterable $cuts): array
    {
        $answers = [];
        foreach ($cuts as $cut) {
            $answers[] = CutAnswer::of($cut);
        }

        return $answers;
    }
}
