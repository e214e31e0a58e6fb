<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

use App\Http\ListOf;

/** What of a list of files would come in, by the places in the list; what would not, and why. */
final readonly class ImportLookAnswer
{
    /**
     * @param  list<int>  $places
     * @param  list<array{path: string, reason: string}>  $refused
     * @param  list<KnownFileAnswer>  $known
     */
    public function __construct(
        public array $places,
        public array $refused,
        public int $passed,
        #[ListOf(KnownFileAnswer::class)] public array $known,
    ) {}
}
