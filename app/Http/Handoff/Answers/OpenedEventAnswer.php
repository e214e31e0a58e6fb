<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** An event of a list that was opened. */
final readonly class OpenedEventAnswer
{
    public function __construct(
        public string $on,
        public string $name,
        public ?string $reel,
        public string $source_in,
        public string $source_out,
        public string $record_in,
        public string $record_out,
    ) {}
}
