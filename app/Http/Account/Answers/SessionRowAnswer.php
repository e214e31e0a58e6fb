<?php

declare(strict_types=1);

namespace App\Http\Account\Answers;

/** A browser in which a person is signed in. */
final readonly class SessionRowAnswer
{
    public function __construct(
        public string $id,
        public ?string $address,
        public string $browser,
        public string $last_at,
        public bool $is_this,
    ) {}
}
