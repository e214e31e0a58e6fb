<?php

declare(strict_types=1);

namespace App\Http\Session\Answers;

/** Who is signed in, if anybody, and the productions they belong to. */
final readonly class SessionStateAnswer
{
    /**
     * @param  list<array{ulid: string, name: string}>  $productions
     */
    public function __construct(public ?PersonAnswer $user, public array $productions) {}
}
