<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** A clip of a take, or of none, in the sheet. Where a stretch of it belongs to the take, times are that stretch's. */
final readonly class LogClipAnswer
{
    /**
     * @param  'picture'|'sound'|'other'  $kind
     * @param  int|null  $in_ticks  where the take's stretch begins; null where all of the clip is the take's
     * @param  list<string>  $problems
     * @param  int|null  $clock  which of the line-up's clocks it is placed on; 0 is the day's
     */
    public function __construct(
        public string $ulid,
        public string $kind,
        public string $name,
        public string $file,
        public ?string $device,
        public ?string $slate_from,
        public ?int $in_ticks,
        public ?int $duration_ticks,
        public ?int $start_ticks,
        public ?int $placed_ticks,
        public ?int $clock,
        public ?string $way,
        public bool $sure,
        public ?string $stray,
        public bool $is_wild,
        public bool $is_false_start,
        public array $problems,
        public bool $ready,
    ) {}
}
