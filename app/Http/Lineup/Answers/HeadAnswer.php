<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** From which frame on a clip is watched. */
final readonly class HeadAnswer
{
    public function __construct(public ?int $frames) {}
}
