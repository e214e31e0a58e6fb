<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

/** What was found by a word. */
final readonly class SearchResultAnswer
{
    /**
     * @param  list<array{ulid: string, setup: string, take: int, part: string, description: string,
     *     status: 'none'|'circled'|'hold'|'ng', day: string, number: int}>  $takes
     * @param  list<array{ulid: string, name: string, label: string|null, kind: string, letter: string|null, day: string,
     *     number: int}>  $clips
     */
    public function __construct(public array $takes, public array $clips) {}
}
