<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** That a card was released, and what was looked at. */
final readonly class CardReleaseAnswer
{
    /**
     * @param  array{files: int, size_bytes: int, algorithm: string|null, verified_at: string|null, looked_at?: string,
     *     one_disk?: bool, words?: string|null, copies: list<ReleasedCopyAnswer>}  $evidence
     */
    public function __construct(public string $at, public ?string $by, public array $evidence) {}
}
