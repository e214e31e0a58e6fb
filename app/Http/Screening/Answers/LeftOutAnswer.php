<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\Take;

/** A take that a reel's recipe chooses and somebody left out. */
final readonly class LeftOutAnswer
{
    public function __construct(public string $ulid, public string $label, public string $description) {}

    public static function of(Take $take): self
    {
        return new self($take->ulid, $take->label(), $take->description);
    }
}
