<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** One person's in and out on a clip. */
final readonly class MarksAnswer
{
    public function __construct(public ?int $in_ticks, public ?int $out_ticks) {}
}
