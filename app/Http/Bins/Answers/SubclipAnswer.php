<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

use App\Models\Subclip;

/** A stretch of a clip, some of its channels, or both, that has a name. Ticks from its first frame; null is all of it. */
final readonly class SubclipAnswer
{
    /**
     * @param  list<int>|null  $channels
     * @param  int  $handle_ticks  how far beyond both ends it may be looked at
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public ?int $in_ticks,
        public ?int $out_ticks,
        public ?array $channels,
        public int $handle_ticks,
    ) {}

    public static function of(Subclip $subclip): self
    {
        return new self(
            $subclip->ulid,
            $subclip->name,
            $subclip->in_ticks,
            $subclip->out_ticks,
            $subclip->channels,
            (int) $subclip->handle_ticks,
        );
    }
}
