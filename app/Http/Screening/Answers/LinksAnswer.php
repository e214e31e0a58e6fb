<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Http\ListOf;

/** The links of a reel, the newest first. */
final readonly class LinksAnswer
{
    /** @param  list<LinkAnswer>  $links */
    public function __construct(#[ListOf(LinkAnswer::class)] public array $links) {}
}
