<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** Where a card would land below each store. */
final readonly class PlaceAnswer
{
    public function __construct(public string $path) {}
}
