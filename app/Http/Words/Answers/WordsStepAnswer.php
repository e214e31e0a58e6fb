<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

/** A step that somebody took on the words of a clip. */
final readonly class WordsStepAnswer
{
    public function __construct(public string $label, public string $by, public ?string $at, public bool $undone) {}
}
