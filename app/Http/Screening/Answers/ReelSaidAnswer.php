<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\TakeFact;

/** A note that came with a take: from the script supervisor's notes, or from the recorder. */
final readonly class ReelSaidAnswer
{
    public function __construct(public string $by, public string $place, public string $text) {}

    public static function of(TakeFact $fact): self
    {
        return new self($fact->source, $fact->place, (string) json_decode($fact->value));
    }
}
