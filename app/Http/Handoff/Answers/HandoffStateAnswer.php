<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** How a package stands. */
final readonly class HandoffStateAnswer
{
    public function __construct(public string $state) {}
}
