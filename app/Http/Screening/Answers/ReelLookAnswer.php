<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

/** What a recipe would make now. */
final readonly class ReelLookAnswer
{
    /** @param  list<string>  $slates  of the first takes */
    public function __construct(public int $takes, public int $running_ticks, public array $slates) {}
}
