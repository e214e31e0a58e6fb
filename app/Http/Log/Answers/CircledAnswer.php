<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** The status of a take now. */
final readonly class CircledAnswer
{
    /** @param  'none'|'circled'|'hold'|'ng'  $status */
    public function __construct(public string $ulid, public string $status) {}
}
