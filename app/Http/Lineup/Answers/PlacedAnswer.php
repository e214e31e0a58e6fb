<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** A clip on the clock of the day. Ticks. */
final readonly class PlacedAnswer
{
    /**
     * @param  'picture'|'sound'  $kind
     * @param  array{string, string}|null  $weakest_link
     * @param  'timecode'|'date'|'order'|null  $laid_by  what says where its group lies, which nothing ties to the day's clock
     */
    public function __construct(
        public string $clip,
        public string $name,
        public string $device,
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
        public int $start_ticks,
        public int $group,
        public string $way,
        public float $confidence,
        public bool $sure,
        public ?float $drift_ppm,
        public bool $drift_applied,
        public bool $is_anchor,
        public bool $locked,
        public ?int $second_ticks,
        public ?string $second_against,
        public ?int $agreeing,
        public ?int $windows,
        public ?string $against,
        public ?float $height,
        public ?float $runner_up,
        public ?int $residual_ticks,
        public ?int $clock_disagrees_ticks,
        public ?string $point,
        public ?array $weakest_link,
        public ?int $miss_ticks,
        public ?string $laid_by,
    ) {}
}
