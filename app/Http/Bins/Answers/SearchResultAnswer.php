<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** What was found by some words. */
final readonly class SearchResultAnswer
{
    /**
     * @param  string|null  $meant  the words that were looked for instead, where nothing has those that were typed
     * @param  list<SearchHitAnswer>  $hits  sort by sort
     */
    public function __construct(public ?string $meant, public array $hits) {}
}
