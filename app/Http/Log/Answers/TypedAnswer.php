<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** What the log line did. */
final readonly class TypedAnswer
{
    public function __construct(public string $take, public string $slate, public bool $made) {}
}
