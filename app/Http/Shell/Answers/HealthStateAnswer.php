<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

/** Whether all is up, for whoever asks from elsewhere. */
final readonly class HealthStateAnswer
{
    public function __construct(public bool $ok) {}
}
