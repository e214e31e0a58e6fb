<?php

declare(strict_types=1);

namespace App\Http\Assembly\Answers;

/** A string-out that was laid, and what could not be laid in it. */
final readonly class StringOutAnswer
{
    /** @param  list<string>  $left */
    public function __construct(public string $ulid, public string $name, public array $left) {}
}
