<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

use App\Http\ListOf;

/** What is on its way in. */
final readonly class ImportsAnswer
{
    /** @param  list<ImportAnswer>  $imports */
    public function __construct(#[ListOf(ImportAnswer::class)] public array $imports) {}
}
