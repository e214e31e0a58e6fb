<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\ScreeningLink;

/** A link by which somebody from outside watches a reel; the secret in it is told once, when it is made. */
final readonly class LinkAnswer
{
    /** @param  string|null  $secret  only as it is made */
    public function __construct(
        public string $ulid,
        public string $for_name,
        public string $by,
        public bool $has_password,
        public ?string $expires_at,
        public bool $ended,
        public int $opens,
        public ?string $last_opened_at,
        public ?string $secret,
    ) {}

    public static function of(ScreeningLink $link, ?string $secret = null): self
    {
        return new self(
            $link->ulid,
            $link->for_name,
            $link->user->name ?? 'somebody',
            $link->password !== null,
            $link->expires_at?->toIso8601String(),
            $link->revoked_at !== null || $link->expires_at?->isPast() === true,
            $link->opens,
            $link->last_opened_at?->toIso8601String(),
            $secret,
        );
    }
}
