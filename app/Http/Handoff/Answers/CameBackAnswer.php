<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\ListOf;

/** A list that came back, with all of its events. */
final readonly class CameBackAnswer
{
    /**
     * @param  'edl'|'otio'|'aaf'  $format
     * @param  list<ReceivedEventAnswer>  $events
     * @param  list<ListProblemAnswer>  $problems
     * @param  list<CutNameAnswer>  $others
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public string $file,
        public string $format,
        public string $rate,
        public string $start,
        public string $length,
        #[ListOf(ReceivedEventAnswer::class)] public array $events,
        #[ListOf(ListProblemAnswer::class)] public array $problems,
        public int $problem_count,
        public int $linked,
        public int $total,
        #[ListOf(CutNameAnswer::class)] public array $others,
    ) {}
}
