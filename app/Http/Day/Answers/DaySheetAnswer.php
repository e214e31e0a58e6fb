<?php

declare(strict_types=1);

namespace App\Http\Day\Answers;

use App\Http\ListOf;

/** The day at a glance. Ticks and bytes. */
final readonly class DaySheetAnswer
{
    /**
     * @param  array{cards: int, cards_safe: int, cards_unsafe: list<string>, bytes_verified: int, takes: int, setups: int,
     *     scenes: int, circled: int, handed_off: int, circled_ticks: int, running_ticks: int, synced: int, to_sync: int,
     *     unsure: int, strays: int}  $counts
     * @param  list<array{device: string, kind: string, spans: list<array{int, int, string, string|null, bool}>,
     *     holes: list<array{int, int}>}>  $rolled
     * @param  list<OpenPointAnswer>  $points
     * @param  list<array{done: bool, title: string, note: string, stage: string, is_running: bool}>  $wrap
     * @param  list<string>  $running  unfinished tasks that the sheet depends on
     */
    public function __construct(
        public array $counts,
        public array $rolled,
        #[ListOf(OpenPointAnswer::class)] public array $points,
        public array $wrap,
        public array $running,
    ) {}
}
