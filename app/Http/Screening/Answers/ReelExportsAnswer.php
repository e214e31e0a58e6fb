<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Http\ListOf;

/** The files of a reel, the newest first. */
final readonly class ReelExportsAnswer
{
    /** @param  list<ReelExportAnswer>  $exports */
    public function __construct(#[ListOf(ReelExportAnswer::class)] public array $exports) {}
}
