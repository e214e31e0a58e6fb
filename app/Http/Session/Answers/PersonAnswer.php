<?php

declare(strict_types=1);

namespace App\Http\Session\Answers;

/** Whoever is signed in. */
final readonly class PersonAnswer
{
    /**
     * @param  'assistant'|'editor'|'reviewer'|'admin'  $role
     * @param  'password'|'second_factor'|null  $needs
     * @param  array<string, list<string>>  $own_keys  by the place on the card of keys
     * @param  array<string, int>  $panels  how wide the panel of a stage is, CSS pixels
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public string $email,
        public string $initials,
        public string $role,
        public ?string $needs,
        public bool $has_second_factor,
        public int $recovery_codes_left,
        public array $own_keys,
        public array $panels,
    ) {}
}
