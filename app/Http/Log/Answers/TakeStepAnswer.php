<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** A step in the history of a take. */
final readonly class TakeStepAnswer
{
    /**
     * @param  list<array{field: string, from: string, to: string}>  $fields
     */
    public function __construct(public string $at, public string $by, public string $label, public bool $undone, public array $fields) {}
}
