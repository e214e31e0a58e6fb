<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

use App\Http\ListOf;

/** The people of a production. */
final readonly class PeopleAnswer
{
    /** @param  list<MemberAnswer>  $people */
    public function __construct(#[ListOf(MemberAnswer::class)] public array $people) {}
}
