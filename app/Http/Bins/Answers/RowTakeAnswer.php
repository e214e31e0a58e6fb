<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** The take that a row belongs to, as lists show it. */
final readonly class RowTakeAnswer
{
    /**
     * @param  'none'|'circled'|'hold'|'ng'  $status
     * @param  array<string, string>  $fields  what its fields say, by key; those that say nothing are left out
     */
    public function __construct(
        public string $ulid,
        public string $scene,
        public string $setup,
        public int $take,
        public string $part,
        public string $status,
        public string $description,
        public string $size,
        public array $fields,
    ) {}
}
