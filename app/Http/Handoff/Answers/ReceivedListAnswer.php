<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** A list that came back from the editing team, in a list of such. */
final readonly class ReceivedListAnswer
{
    /** @param  'edl'|'otio'|'aaf'  $format */
    public function __construct(
        public string $ulid,
        public string $name,
        public string $file,
        public string $format,
        public int $linked,
        public int $total,
        public ?string $by,
        public ?string $at,
    ) {}
}
