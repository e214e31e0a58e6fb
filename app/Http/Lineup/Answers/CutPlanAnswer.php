<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

use App\Http\ListOf;

/** Which takes the line-up makes of the clips. */
final readonly class CutPlanAnswer
{
    /**
     * @param  list<CutRowAnswer>  $rows
     * @param  list<string>  $patterns
     */
    public function __construct(#[ListOf(CutRowAnswer::class)] public array $rows, public array $patterns, public ?string $pattern) {}
}
