<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** A clip without a place, why, and what can be done. */
final readonly class StrayAnswer
{
    /**
     * @param  'picture'|'sound'  $kind
     * @param  list<'back'|'lineup'|'clap'|'hand'|'false_start'|'out'|'wild'>  $steps
     */
    public function __construct(
        public string $clip,
        public string $name,
        public ?string $device,
        public string $kind,
        public int $duration_ticks,
        public ?int $own_ticks,
        public ?string $take,
        public ?string $take_ulid,
        public bool $ready,
        public bool $has_sound,
        public ?string $roll,
        public ?string $scene,
        public bool $left_out,
        public string $what,
        public bool $alone,
        public string $reason,
        public bool $is_false_start,
        public array $steps,
    ) {}
}
