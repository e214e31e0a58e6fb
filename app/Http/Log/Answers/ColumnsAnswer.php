<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** The columns of the sheet as a person keeps them; none where they never chose. */
final readonly class ColumnsAnswer
{
    /** @param  list<array{key: string, width: int, shown: bool}>|null  $columns */
    public function __construct(public ?array $columns) {}
}
