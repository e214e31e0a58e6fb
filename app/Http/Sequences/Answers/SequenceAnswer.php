<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Models\StoredSequence;
use Cartella\Core\Cutting\Sequence;

/** A cut as it is at its newest step. */
final readonly class SequenceAnswer
{
    /**
     * @param  'reel'|'string_out'|'cut'|'angle_cut'|'received'  $kind
     * @param  array<string, mixed>  $value  as docs/formats.md writes a sequence
     * @param  list<SequenceVersionAnswer>  $versions
     */
    public function __construct(
        public string $ulid,
        public string $kind,
        public string $name,
        public int $step,
        public array $value,
        public array $versions,
    ) {}

    public static function of(StoredSequence $stored, Sequence $value): self
    {
        return new self(
            $stored->ulid,
            $stored->kind->value,
            $stored->name,
            $stored->step,
            $value->toArray(),
            $stored->versions->load('user')->map(SequenceVersionAnswer::of(...))->all(),
        );
    }
}
