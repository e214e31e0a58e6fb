<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** A row of a file of notes, and what it would change. */
final readonly class NoteSampleAnswer
{
    /**
     * @param  list<array{field: string, was: string|bool, said: string|bool, becomes: string|bool|null}>  $fields
     */
    public function __construct(public int $row, public string $slate, public ?string $take, public string $why, public array $fields) {}
}
