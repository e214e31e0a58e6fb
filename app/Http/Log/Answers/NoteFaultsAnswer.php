<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** More of the cells that a file of notes left out. */
final readonly class NoteFaultsAnswer
{
    /** @param  list<array{row: int, column: string, what: string, why: string}>  $faults */
    public function __construct(public array $faults) {}
}
