<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** What depends on some clips; `total` is how much that is, to be said again when they are taken away. */
final readonly class DependentsAnswer
{
    /**
     * @param  list<string>  $bins  their names
     * @param  list<array{name: string, times: int}>  $sequences
     */
    public function __construct(
        public int $clips,
        public int $takes,
        public int $subclips,
        public int $markers,
        public int $marks,
        public int $notes,
        public int $placed,
        public array $bins,
        public array $sequences,
        public int $total,
    ) {}
}
