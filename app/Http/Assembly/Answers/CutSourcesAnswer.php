<?php

declare(strict_types=1);

namespace App\Http\Assembly\Answers;

use App\Http\ListOf;

/** The clips and takes that the items of a cut are of. */
final readonly class CutSourcesAnswer
{
    /**
     * @param  list<CutClipAnswer>  $clips
     * @param  list<CutTakeAnswer>  $takes
     */
    public function __construct(#[ListOf(CutClipAnswer::class)] public array $clips, #[ListOf(CutTakeAnswer::class)] public array $takes) {}
}
