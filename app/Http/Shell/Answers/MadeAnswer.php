<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

/** Something that was made, by its ULID. */
final readonly class MadeAnswer
{
    public function __construct(public string $ulid) {}
}
