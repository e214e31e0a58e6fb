<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

use App\Http\ListOf;

/** The takes of a day, and the clips of none. */
final readonly class SlateSheetAnswer
{
    /**
     * @param  list<TakeRowAnswer>  $takes
     * @param  list<LogClipAnswer>  $unslated
     */
    public function __construct(
        #[ListOf(TakeRowAnswer::class)] public array $takes,
        #[ListOf(LogClipAnswer::class)] public array $unslated,
    ) {}
}
