<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

/** Somebody new; the password is told once. */
final readonly class AddedPersonAnswer
{
    public function __construct(public string $ulid, public string $name, public ?string $password) {}
}
