<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\ScreeningLink;

/** What somebody with a link is told before they watch, and whether they are let in. */
final readonly class GuestAnswer
{
    public function __construct(
        public string $reel,
        public string $production,
        public string $for_name,
        public bool $needs_password,
        public bool $is_open,
        public ?string $expires_at,
    ) {}

    public static function of(ScreeningLink $link, bool $isOpen): self
    {
        return new self(
            $link->reel->name,
            $link->production->name,
            $link->for_name,
            $link->password !== null,
            $isOpen,
            $link->expires_at?->toIso8601String(),
        );
    }
}
