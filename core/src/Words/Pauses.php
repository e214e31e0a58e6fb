<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

use Cartella\Core\Time\Ticks;

/**
 * Where nobody speaks: stretches of a sound under a threshold, and what lies between them. Ticks from its start, ends exclusive,
 * exact to a step of its {@see Levels} (5.3 ms at 48 kHz).
 *
 * Without a threshold it is found from the sound's own noise, minute by minute where a minute has both noise and voices.
 */
final readonly class Pauses
{
    /** Ticks: what is shorter between two pauses is a click and no speech; steps are smoothed over 15 ms on each side. */
    private const CLICK = Ticks::PER_SECOND / 14;

    private const AROUND = Ticks::PER_SECOND / 66;

    /** Share of the quietest steps that are noise whatever is said; level between noise and voices, at most and at least. */
    private const FLOOR_SHARE = 0.03;

    private const SPOKEN = Ticks::PER_SECOND;

    private const LEAST_OVER = 6.0;

    private const MOST_OVER = 14.0;

    private const PART_OVER = 0.35;

    /** Decibels between noise and voices under which nothing happens at all. */
    private const NOTHING = 9.0;

    /** Decibels from which a minute has noise as well as voices. */
    private const BOTH = 18.0;

    private const MINUTE = 60 * Ticks::PER_SECOND;

    /**
     * @param  list<array{int, int}>  $pauses  start and end
     * @param  list<array{int, int}>  $speech
     * @param  float  $floorDb  dBFS of the noise
     */
    private function __construct(public array $pauses, public array $speech, public float $floorDb) {}

    /**
     * @param  float|null  $belowDb  dBFS under which it is quiet; null finds it
     * @param  int  $longerTicks  shorter ones are no pauses
     * @param  int  $paddingTicks  that stay with the speech on each side
     */
    public static function of(Levels $levels, ?float $belowDb = null, int $longerTicks = 352_800_000, int $paddingTicks = 0): self
    {
        $loud = $levels->loudest();
        $smooth = $loud->smoothed((int) max(1, round(self::AROUND / $levels->stepTicks)));
        $steps = $smooth->steps();
        [$floor, $over] = self::threshold($smooth, 0, $steps);
        $minute = (int) ceil(self::MINUTE / $levels->stepTicks);
        $quiet = '';
        for ($from = 0; $from < $steps; $from += $minute) {
            $to = min($steps, $from + $minute);
            $limit = $belowDb ?? $over;
            if ($belowDb === null && $steps > 2 * $minute) {
                // A minute in which somebody speaks all the time has no noise of its own to go by.
                [$ownFloor, $own] = self::threshold($smooth, $from, $to);
                $limit = $own !== null && $smooth->share(0, 0.95, $from, $to) - $ownFloor >= self::BOTH ? $own : $limit;
            }
            for ($step = $from; $step < $to; $step++) {
                $quiet .= $limit === null || $smooth->at(0, $step) < $limit ? '1' : '0';
            }
        }

        return self::spans($quiet, $levels, $floor, $longerTicks, $paddingTicks);
    }

    /** Without the pauses that a shorter one is no longer. */
    private static function spans(string $quiet, Levels $levels, float $floor, int $longer, int $padding): self
    {
        $steps = strlen($quiet);
        $end = $levels->ticks($steps);
        $click = (int) round(self::CLICK / $levels->stepTicks);
        $quiet = (string) preg_replace_callback(
            '/(?<=1)0{1,' . max(1, $click) . '}(?=1)/',
            static fn(array $part): string => str_repeat('1', strlen($part[0])),
            $quiet,
        );
        $pauses = [];
        for ($at = 0; $at < $steps; $at += $length) {
            $isQuiet = $quiet[$at] === '1';
            $length = $isQuiet ? strspn($quiet, '1', $at) : strspn($quiet, '0', $at);
            if (!$isQuiet || $levels->ticks($at + $length) - $levels->ticks($at) < $longer) {
                continue;
            }
            // At the sound's own ends there is no speech that padding would belong to.
            $from = $levels->ticks($at) + ($at === 0 ? 0 : $padding);
            $to = $levels->ticks($at + $length) - ($at + $length === $steps ? 0 : $padding);
            if ($to > $from) {
                $pauses[] = [$from, $to];
            }
        }
        $speech = [];
        $last = 0;
        foreach ([...$pauses, [$end, $end]] as [$from, $to]) {
            if ($from > $last) {
                $speech[] = [$last, $from];
            }
            $last = $to;
        }

        return new self($pauses, $speech, $floor);
    }

    /** @return array{float, float|null} the noise, and the level under which it is quiet; null where nothing happens */
    private static function threshold(Levels $levels, int $from, int $to): array
    {
        // What is cut out of a sound is silent altogether: the noise is that of the rest, if there is some.
        $silent = Levels::SILENT + 5;
        $share = 0.0;
        for ($low = 0.0, $high = 1.0, $round = 0; $round < 12; $round++) {
            $share = ($low + $high) / 2;
            if ($levels->share(0, $share, $from, $to) <= $silent) {
                $low = $share;
            } else {
                $high = $share;
            }
        }
        $silence = $share < 0.001 ? 0.0 : $share;
        // Voices are what is loudest for a second in all, however rarely anybody speaks.
        $steps = max(1, $to - $from);
        $often = max(0.95, 1 - self::SPOKEN / $levels->stepTicks / ($steps * (1 - $silence) ?: 1));
        $voices = $levels->share(0, $silence + $often * (1 - $silence), $from, $to);
        if ($silence > 0.995) {
            return [Levels::SILENT, null];
        }
        $floor = $levels->share(0, $silence + self::FLOOR_SHARE * (1 - $silence), $from, $to);
        if ($voices - $floor < self::NOTHING) {
            // One level and silence: the silence is the pause.
            return $silence > 0.01 ? [Levels::SILENT, max($silent, $floor - self::NOTHING)] : [$floor, null];
        }

        return [$floor, $floor + max(self::LEAST_OVER, min(self::MOST_OVER, self::PART_OVER * ($voices - $floor)))];
    }

    /**
     * @return array{
     *     pauses: list<array{start_ticks: int, end_ticks: int}>,
     *     speech: list<array{start_ticks: int, end_ticks: int}>,
     *     floor_db: float,
     * }
     */
    public function toArray(): array
    {
        $span = static fn(array $span): array => ['start_ticks' => $span[0], 'end_ticks' => $span[1]];

        return [
            'pauses' => array_map($span, $this->pauses),
            'speech' => array_map($span, $this->speech),
            'floor_db' => round($this->floorDb, 1),
        ];
    }
}
