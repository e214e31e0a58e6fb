<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Relink;

/** What an event of a list was linked to and why, or why not, in a sentence. */
final readonly class Link
{
    public function __construct(
        public LinkWay $way,
        public string $reason,
        public ?Candidate $candidate = null,
        public int $sourceStartTicks = 0,
    ) {}

    /** @return array{way: string, reason: string} */
    public function toArray(): array
    {
        return ['way' => $this->way->value, 'reason' => $this->reason];
    }
}
