<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** How many clips begin elsewhere now, and on how many no slate was heard or seen. */
final readonly class HeadsAnswer
{
    public function __construct(public int $changed, public int $none) {}
}
