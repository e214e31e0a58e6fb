<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** A secret that is shown this once. */
final readonly class ShownSecretAnswer
{
    public function __construct(public string $secret) {}
}
