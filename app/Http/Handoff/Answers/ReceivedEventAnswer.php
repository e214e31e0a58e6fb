<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** An event of a list that came back: what it shows, where, and what it was linked to and why, or why not. */
final readonly class ReceivedEventAnswer
{
    /**
     * @param  'picture'|'sound'  $kind
     * @param  'own'|'hash'|'timecode'|'name'|'hand'|'none'  $way
     */
    public function __construct(
        public int $track,
        public int $index,
        public string $on,
        public string $kind,
        public string $name,
        public ?string $reel,
        public string $source_in,
        public string $source_out,
        public string $record_in,
        public string $record_out,
        public int $at_ticks,
        public string $way,
        public string $reason,
        public string $place,
        public ?string $clip,
        public ?string $clip_name,
        public ?string $slates,
        public ?int $in_ticks,
    ) {}
}
