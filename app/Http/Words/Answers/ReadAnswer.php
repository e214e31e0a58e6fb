<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

/** A line as it was said in one take, or words that nobody wrote. Ticks of the clip. */
final readonly class ReadAnswer
{
    /**
     * @param  int|null  $order  among the reads of its take, from 1
     * @param  float|null  $share  of the line's words that were said
     */
    public function __construct(
        public string $take,
        public string $label,
        public ?string $status,
        public string $day,
        public string $clip,
        public int $start_ticks,
        public int $end_ticks,
        public string $text,
        public ?int $order = null,
        public ?float $share = null,
    ) {}
}
