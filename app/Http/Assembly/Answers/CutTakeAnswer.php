<?php

declare(strict_types=1);

namespace App\Http\Assembly\Answers;

use App\Models\Take;

/** A take that items of a cut are of. */
final readonly class CutTakeAnswer
{
    /** @param  'none'|'circled'|'hold'|'ng'  $status */
    public function __construct(
        public string $ulid,
        public string $label,
        public string $scene,
        public string $description,
        public string $status,
    ) {}

    public static function of(Take $take): self
    {
        return new self($take->ulid, $take->label(), $take->scene, (string) $take->description, $take->status);
    }
}
