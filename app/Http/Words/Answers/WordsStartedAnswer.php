<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

/** A text that was brought, or a task that finds words. */
final readonly class WordsStartedAnswer
{
    /** @param  list<string>  $problems  what could not be read, with its line */
    public function __construct(public ?string $task, public int $words, public array $problems) {}
}
