<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** What was read as the slate of a clip. */
final readonly class ReadSlateAnswer
{
    /**
     * @param  'ixml'|'name'|null  $from
     */
    public function __construct(
        public string $clip,
        public string $name,
        public ?string $device,
        public ?string $slate,
        public ?string $from,
        public ?string $pattern,
        public ?string $has,
        public bool $is_new,
    ) {}
}
