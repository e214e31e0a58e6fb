<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

use App\Http\ListOf;

/** What a file of notes would do. */
final readonly class NoteReportAnswer
{
    /**
     * @param  array<'new'|'same'|'different'|'unmatched', int>  $counts
     * @param  array<'new'|'same'|'different'|'unmatched', list<NoteSampleAnswer>>  $samples
     * @param  list<array{row: int, column: string, what: string, why: string}>  $faults
     */
    public function __construct(
        public int $rows,
        public int $made,
        public int $joined,
        public array $counts,
        #[ListOf(NoteSampleAnswer::class)] public array $samples,
        public int $fault_count,
        public array $faults,
        public ?string $corrects,
        public int $left,
    ) {}
}
