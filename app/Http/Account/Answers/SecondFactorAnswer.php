<?php

declare(strict_types=1);

namespace App\Http\Account\Answers;

/** A new second factor, to be set up in an authenticator. */
final readonly class SecondFactorAnswer
{
    public function __construct(public string $secret, public string $address) {}
}
