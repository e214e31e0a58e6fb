<?php

declare(strict_types=1);

namespace App\Http\Account\Answers;

use App\Http\ListOf;

/** Where a person is signed in. */
final readonly class SessionsAnswer
{
    /** @param  list<SessionRowAnswer>  $sessions */
    public function __construct(#[ListOf(SessionRowAnswer::class)] public array $sessions) {}
}
