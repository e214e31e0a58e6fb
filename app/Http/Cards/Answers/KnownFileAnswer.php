<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** A file of a list, by its place, of which an import has the same name and size already. */
final readonly class KnownFileAnswer
{
    public function __construct(public int $place, public string $roll) {}
}
