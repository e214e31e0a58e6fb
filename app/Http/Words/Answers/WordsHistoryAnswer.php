<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

use App\Http\ListOf;

/** What was done to the words of a clip, newest first. */
final readonly class WordsHistoryAnswer
{
    /** @param  list<WordsStepAnswer>  $steps */
    public function __construct(#[ListOf(WordsStepAnswer::class)] public array $steps) {}
}
