<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** The take that a row belongs to, as lists show it. */
final readonly class RowTakeAnswer
{
    /** @param  'none'|'circled'|'hold'|'ng'  $status */
    public function __construct(
        public string $ulid,
        public string $setup,
        public int $take,
        public string $part,
        public string $status,
        public string $description,
        public string $size,
    ) {}
}
