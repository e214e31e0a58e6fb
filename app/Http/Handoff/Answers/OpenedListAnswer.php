<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\ListOf;

/** A list of a package, opened. */
final readonly class OpenedListAnswer
{
    /** @param  list<OpenedEventAnswer>  $events */
    public function __construct(public string $title, public string $rate, #[ListOf(OpenedEventAnswer::class)] public array $events) {}
}
