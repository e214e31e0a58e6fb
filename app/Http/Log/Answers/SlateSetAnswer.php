<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** The take that a clip is of now. */
final readonly class SlateSetAnswer
{
    public function __construct(public ?string $take) {}
}
