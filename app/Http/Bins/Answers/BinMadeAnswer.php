<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** A bin, by its key. */
final readonly class BinMadeAnswer
{
    public function __construct(public string $key) {}
}
