<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\Take;

/** The take that a piece of a reel shows. */
final readonly class ReelTakeAnswer
{
    /** @param  'none'|'circled'|'hold'|'ng'  $status */
    public function __construct(
        public string $ulid,
        public string $setup,
        public int $take,
        public string $part,
        public string $scene,
        public string $status,
        public string $description,
        public string $size,
        public ?string $log_note,
    ) {}

    public static function of(Take $take): self
    {
        return new self(
            $take->ulid,
            $take->setup,
            $take->take,
            $take->part,
            $take->scene,
            $take->status,
            (string) $take->description,
            (string) $take->size,
            $take->notes,
        );
    }
}
