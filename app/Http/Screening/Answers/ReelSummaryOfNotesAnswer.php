<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Http\ListOf;

/** What was said of the takes of a reel: summed up by person, and take by take in the reel's order. */
final readonly class ReelSummaryOfNotesAnswer
{
    /**
     * @param  list<ReelPersonAnswer>  $people
     * @param  list<SaidTakeAnswer>  $takes
     */
    public function __construct(
        #[ListOf(ReelPersonAnswer::class)] public array $people,
        #[ListOf(SaidTakeAnswer::class)] public array $takes,
    ) {}
}
