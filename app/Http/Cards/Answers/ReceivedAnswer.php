<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** How much of a file is here; bytes. */
final readonly class ReceivedAnswer
{
    public function __construct(public int $received_bytes) {}
}
