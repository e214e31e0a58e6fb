<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

/** What changed in a production since the last time it was asked. */
final readonly class ChangesAnswer
{
    /** @param  list<array{id: int, topic: string, facts: mixed, origin: string|null}>  $events */
    public function __construct(public int $last, public array $events) {}
}
