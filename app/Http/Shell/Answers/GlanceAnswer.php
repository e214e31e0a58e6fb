<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

use App\Http\ListOf;

/** A production as it is seen before it is opened. */
final readonly class GlanceAnswer
{
    /**
     * @param  string  $rate  its label, such as 25
     * @param  list<GlanceDayAnswer>  $days  the newest first, at most as many as are shown
     * @param  int  $days_count  of all
     * @param  list<string>  $waiting  volumes in the readers of which something is not in yet
     * @param  list<GlancePersonAnswer>  $here
     */
    public function __construct(
        public string $rate,
        #[ListOf(GlanceDayAnswer::class)] public array $days,
        public int $days_count,
        public array $waiting,
        #[ListOf(GlancePersonAnswer::class)] public array $here,
        public bool $may_add_day,
    ) {}
}
