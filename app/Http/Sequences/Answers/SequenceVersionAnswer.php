<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Models\SequenceVersion;

/** A state of a cut that somebody gave a name. */
final readonly class SequenceVersionAnswer
{
    public function __construct(public string $ulid, public string $name, public int $step, public ?string $by, public ?string $made_at) {}

    public static function of(SequenceVersion $version): self
    {
        return new self($version->ulid, $version->name, $version->step, $version->user?->name, $version->created_at?->toIso8601String());
    }
}
