<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** The first or last clip of a volume. */
final readonly class VolumeClipAnswer
{
    public function __construct(public string $name, public ?string $at) {}
}
