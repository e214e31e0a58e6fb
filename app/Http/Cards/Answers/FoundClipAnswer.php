<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** A clip whose media went and came back: by what they were known, and the roll they were of before. */
final readonly class FoundClipAnswer
{
    /** @param  'hash'|'timecode'|'name'  $by */
    public function __construct(
        public string $clip,
        public string $name,
        public string $by,
        public string $words,
        public string $was,
        public string $at,
    ) {}
}
