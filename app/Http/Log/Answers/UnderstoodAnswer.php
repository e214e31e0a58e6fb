<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** What the log line would do. */
final readonly class UnderstoodAnswer
{
    /**
     * @param  list<array{is: 'slate'|'size'|'status'|'mark'|'keyword'|'note'|'happens', says: string}>  $pieces
     * @param  list<string>  $problems
     * @param  list<string>  $hints
     * @param  'nothing'|'joins'|'joins-new'|'makes'|'edits'  $does
     */
    public function __construct(
        public array $pieces,
        public array $problems,
        public array $hints,
        public ?string $slate,
        public string $does,
    ) {}
}
