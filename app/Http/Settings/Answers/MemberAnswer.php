<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

/** Somebody of a production. */
final readonly class MemberAnswer
{
    /**
     * @param  'assistant'|'editor'|'reviewer'|'admin'  $role
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public string $email,
        public string $role,
        public bool $is_desk_admin,
        public bool $has_second_factor,
        public bool $must_use_second_factor,
        public bool $must_change_password,
        public int $sessions,
        public bool $is_you,
    ) {}
}
