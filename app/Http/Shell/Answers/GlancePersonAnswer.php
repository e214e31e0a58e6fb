<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

/** Somebody who has a page of a production open. */
final readonly class GlancePersonAnswer
{
    public function __construct(public string $name, public string $initials) {}
}
