<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** A clip, and the take it would be of. */
final readonly class CutRowAnswer
{
    /**
     * @param  'take'|'false_start'|'wild'|'room_tone'|'mos'  $what
     */
    public function __construct(
        public string $clip,
        public string $name,
        public ?string $device,
        public string $kind,
        public string $what,
        public ?string $was,
        public ?string $now,
        public bool $is_new,
        public string $why,
    ) {}
}
