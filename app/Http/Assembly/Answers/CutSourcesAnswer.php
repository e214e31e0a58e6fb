<?php

declare(strict_types=1);

namespace App\Http\Assembly\Answers;

use App\Http\ListOf;
use App\Http\Shell\Answers\RateAnswer;

/** The rate of a cut, and the clips and takes that its items are of. */
final readonly class CutSourcesAnswer
{
    /**
     * @param  list<CutClipAnswer>  $clips
     * @param  list<CutTakeAnswer>  $takes
     */
    public function __construct(
        public RateAnswer $rate,
        #[ListOf(CutClipAnswer::class)] public array $clips,
        #[ListOf(CutTakeAnswer::class)] public array $takes,
    ) {}
}
