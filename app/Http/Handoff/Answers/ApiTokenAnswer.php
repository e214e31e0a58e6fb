<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** A token with which a program reads the production. */
final readonly class ApiTokenAnswer
{
    public function __construct(public string $ulid, public string $name, public ?string $made_at, public ?string $used_at) {}
}
