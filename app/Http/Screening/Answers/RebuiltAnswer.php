<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

/** What was otherwise when a reel was built again. */
final readonly class RebuiltAnswer
{
    public function __construct(public ?string $changed) {}
}
