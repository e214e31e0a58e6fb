<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

use App\Http\ListOf;

/** What is said in a clip, and what can be done to find it. */
final readonly class ClipWordsAnswer
{
    /**
     * @param  list<WordSourceAnswer>  $sources
     * @param  list<string>  $heard_in  the recordings whose words it would have
     * @param  list<string>  $languages  that this machine has
     * @param  string|null  $service  the address of another service
     * @param  string|null  $task  that finds them just now
     */
    public function __construct(
        #[ListOf(WordSourceAnswer::class)] public array $sources,
        public array $heard_in,
        public array $languages,
        public ?string $service,
        public ?string $task,
    ) {}
}
