<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Models\StoredSequence;

/** A cut that pieces can be added to. */
final readonly class CutAnswer
{
    public function __construct(
        public string $ulid,
        public string $name,
        public string $kind,
        public int $duration_ticks,
        public int $step,
    ) {}

    public static function of(StoredSequence $cut): self
    {
        return new self($cut->ulid, $cut->name, $cut->kind->value, (int) $cut->running_ticks, $cut->step);
    }
}
