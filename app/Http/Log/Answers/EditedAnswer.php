<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** How many takes were changed. */
final readonly class EditedAnswer
{
    public function __construct(public int $takes) {}
}
