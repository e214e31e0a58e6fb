<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

/** A new password, told once. */
final readonly class NewPasswordAnswer
{
    public function __construct(public string $password) {}
}
