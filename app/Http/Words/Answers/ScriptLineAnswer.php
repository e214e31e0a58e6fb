<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

use App\Http\ListOf;

/** A line of the script with all its reads, in the order of slates. */
final readonly class ScriptLineAnswer
{
    /** @param  list<ReadAnswer>  $reads */
    public function __construct(
        public int $number,
        public string $character,
        public string $text,
        #[ListOf(ReadAnswer::class)] public array $reads,
    ) {}
}
