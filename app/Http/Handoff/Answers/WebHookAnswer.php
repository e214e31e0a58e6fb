<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** An address that is told what becomes of hand-offs. */
final readonly class WebHookAnswer
{
    /** @param  list<'delivered'|'accepted'|'asked'>  $events */
    public function __construct(
        public string $ulid,
        public string $url,
        public array $events,
        public ?string $told_at,
        public ?string $trouble,
    ) {}
}
