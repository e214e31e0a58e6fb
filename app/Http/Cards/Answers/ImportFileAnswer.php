<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** A file of an import: its place in the list that was sent, its number in the import, and its bytes. */
final readonly class ImportFileAnswer
{
    public function __construct(public int $place, public int $number, public int $size_bytes, public int $received_bytes) {}
}
