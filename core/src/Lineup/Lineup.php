<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup;

use Cartella\Core\Lineup\Internal\DeviceClocks;
use Cartella\Core\Lineup\Internal\Link;
use Cartella\Core\Lineup\Internal\Network;
use Cartella\Core\Lineup\Internal\SoundPairs;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\TimeOfDay;

/**
 * Lays clips of several devices on one clock, by the ways asked for in their order, and says what it could not place.
 *
 * The clock is that of `zero`, the first sound clip (the first clip where there is none) or the one that was asked for:
 * its first sample is 0 ticks. Sound ties clips exactly; clocks then tie what sound left apart, with the offset that
 * sound taught. What ties three clips or more must close to 5 ms. A clip that nothing places is a stray with a reason,
 * and stops no other.
 */
final class Lineup
{
    /** Distance at which two statements about the same clips contradict each other. */
    private const CYCLE_TICKS = Ticks::PER_SECOND / 200;

    /** Half a frame at 25 fps: what a person would see. */
    private const HALF_FRAME_TICKS = Ticks::PER_SECOND / 50;

    /** What two clips of one device overlap by when they were laid on the wrong event, and not only on a drifting clock. */
    private const OVERLAP_TICKS = Ticks::PER_SECOND / 2;

    /** What a group lies behind the others where no clock says where. */
    private const APART_TICKS = 60 * Ticks::PER_SECOND;

    /** By how much a timecode and a date of one device may say something else, and still mean one day. */
    private const DATE_TICKS = 6 * 3600 * Ticks::PER_SECOND;

    private readonly Network $network;

    private readonly LineupClip $zero;

    /** @var array<string, LineupClip> */
    private array $clips = [];

    private ?bool $hasTakes = null;

    /** @var array<int, SoundMatch> */
    private array $matches = [];

    /** @var array<string, string> */
    private array $reasons = [];

    /**
     * By way and device: timecode and recorded dates are two clocks.
     *
     * @var array<string, array<string, array{offset_ticks: int, votes: int, sure: bool}>>
     */
    private array $offsets = [];

    /** @var array<string, array<string, mixed>> what else is known of a place, by clip */
    private array $remarks = [];

    /** @param  non-empty-list<LineupClip>  $clips */
    private function __construct(array $clips, ?string $anchor)
    {
        $this->network = new Network();
        foreach ($clips as $clip) {
            $this->clips[$clip->id] = $clip;
            $this->network->add($clip->id);
        }
        $sounds = array_values(array_filter($clips, static fn(LineupClip $clip): bool => $clip->isSound));
        $this->zero = $this->clips[$anchor ?? ''] ?? ($sounds[0] ?? $clips[0]);
    }

    /**
     * @param  list<LineupClip>  $clips  with different ids
     * @param  list<Way>  $ways
     * @param  (callable(string $id, int $done, int $total, SoundMatch|null $found): void)|null  $progress  called as sound is compared,
     *     with what a clip was found along; may throw to stop
     * @param  string|null  $anchor  the clip whose clock counts
     * @param  Journal|null  $journal  what an earlier run over the same clips has compared, and where this one keeps it
     */
    public static function of(
        array $clips,
        array $ways,
        ?callable $progress = null,
        ?string $anchor = null,
        ?Journal $journal = null,
    ): LineupResult {
        if ($clips === []) {
            return new LineupResult(null, [], [], [], [], [], []);
        }
        $lineup = new self($clips, $anchor);
        $lineup->tieLocked();
        foreach ($ways as $way) {
            match ($way) {
                Way::Sound => $lineup->bySound($progress, $journal),
                Way::Timecode => $lineup->byClock(
                    $way,
                    static fn(LineupClip $clip): ?int => $clip->startTicks,
                    intdiv(Ticks::PER_SECOND, 24),
                ),
                Way::Clock => $lineup->byClock($way, static fn(LineupClip $clip): ?int => $clip->recordedTicks, Ticks::PER_SECOND),
                Way::Mark => $lineup->byPoint($way, 0.7, static fn(LineupClip $clip): array => $clip->marks),
                Way::In => $lineup->byPoint($way, 0.5, static fn(LineupClip $clip): array => $lineup->ofTake($clip, $clip->inTicks)),
                Way::Out => $lineup->byPoint($way, 0.5, static fn(LineupClip $clip): array => $lineup->ofTake($clip, $clip->outTicks)),
                Way::Start => $lineup->byPoint($way, 0.3, static fn(LineupClip $clip): array => $lineup->ofTake($clip, 0)),
                Way::Hand => null,
            };
        }
        $lineup->checkCycles();

        return $lineup->result();
    }

    /** A person's places come first and are never moved. */
    private function tieLocked(): void
    {
        foreach ($this->clips as $clip) {
            if ($clip->lockedTicks !== null && $clip->id !== $this->zero->id) {
                $this->network->tie(
                    new Link($this->zero->id, $clip->id, $clip->lockedTicks, Way::Hand, 1.0, true, evidence: ['locked' => true]),
                );
            }
            foreach ($clip->ties as $other => $ticks) {
                if (isset($this->clips[$other]) && !$this->network->isTied((string) $other, $clip->id)) {
                    $this->network->tie(new Link((string) $other, $clip->id, $ticks, Way::Hand, 1.0, true, evidence: ['locked' => true]));
                }
            }
        }
    }

    private function bySound(?callable $progress, ?Journal $journal): void
    {
        $pairs = new SoundPairs($progress, $journal);
        $this->matches = $pairs->find(array_values($this->clips));
        $this->reasons += $pairs->silent;
        // Best first, and recordings before cameras: a place that hangs on a recording is not carried by a third clock.
        usort(
            $this->matches,
            fn(SoundMatch $x, SoundMatch $y): int => [$y->isSure(), $this->clips[$y->a]->isSound, $y->confidence(), $y->height] <=> [
                $x->isSure(),
                $this->clips[$x->a]->isSound,
                $x->confidence(),
                $x->height,
            ],
        );
        foreach ($this->matches as $number => $match) {
            $isOneEvent = $this->tieSound(
                new Link(
                    $match->a,
                    $match->b,
                    $match->offsetTicks,
                    Way::Sound,
                    $match->confidence(),
                    $match->isSure(),
                    $match->driftPpm,
                    $match->middleTicks,
                    [
                        'height' => $match->height,
                        'runner_up' => $match->runnerUp,
                        'agreeing' => $match->agreeing,
                        'windows' => $match->windows,
                        'residual_ticks' => $match->residualTicks,
                        'second_ticks' => $match->secondTicks,
                        'second_against' => $match->secondIn,
                    ],
                ),
            );
            if (!$isOneEvent) {
                unset($this->matches[$number]); // it teaches nothing of the clocks either
            }
        }
        $this->matches = array_values($this->matches);
    }

    /**
     * The same song or the same line from a loudspeaker ties clips of different takes as surely as one event does. Where
     * that would lay two clips of one device over each other it is not one event, and the link is left out.
     *
     * @return bool whether the link counts
     */
    private function tieSound(Link $link): bool
    {
        $over = $this->network->isTied($link->a, $link->b) ? null : $this->overlap($link);
        if ($over === null) {
            $this->network->tie($link);

            return true;
        }
        $this->reasons[$link->b] ??=
            $over[0] === $link->b
                ? sprintf('The best place for it overlaps %s of the same device.', $over[1])
                : sprintf('The best place for it would lay %s over %s.', $over[0], $over[1]);

        return false;
    }

    /** @return array{string, string}|null two clips of one device that a link would lay over each other */
    private function overlap(Link $link): ?array
    {
        $lanes = [];
        foreach ($this->network->from($link->a) as $id => $place) {
            $lanes[$this->clips[$id]->device][] = [$place['ticks'], $place['ticks'] + $this->clips[$id]->durationTicks, (string) $id];
        }
        foreach ($this->network->from($link->b) as $id => $place) {
            $from = $link->offsetTicks + $place['ticks'];
            $to = $from + $this->clips[$id]->durationTicks;
            foreach ($lanes[$this->clips[$id]->device] ?? [] as [$otherFrom, $otherTo, $other]) {
                if (min($to, $otherTo) - max($from, $otherFrom) > self::OVERLAP_TICKS) {
                    return [(string) $id, $other];
                }
            }
        }

        return null;
    }

    /** @param  callable(LineupClip): ?int  $timeOf */
    private function byClock(Way $way, callable $timeOf, int $toleranceTicks): void
    {
        $zero = $this->zero;
        $times = array_filter(array_map($timeOf, $this->clips), static fn(?int $time): bool => $time !== null);
        if (!isset($times[$zero->id])) {
            return;
        }
        // A night shoot passes midnight, and a clock's face does not say of which day it is: dates do, where clips have them.
        $isAssumed = [];
        if ($way === Way::Timecode) {
            $recorded = $times;
            $times = $this->onTheirDays($times);
            foreach ($times as $id => $time) {
                $isMoved = $time - $times[$zero->id] !== $recorded[$id] - $recorded[$zero->id];
                $isAssumed[$id] = $isMoved && ($this->clips[$id]->recordedTicks === null || $zero->recordedTicks === null);
            }
        }
        $clocks = (new DeviceClocks($this->clips, $this->matches, $times, $toleranceTicks, $zero->device))->offsets;
        $this->offsets[$way->value] ??= $clocks;
        $places = $this->network->from($zero->id);
        foreach ($this->clips as $clip) {
            if (!isset($times[$clip->id])) {
                continue;
            }
            $learned = $clocks[$clip->device] ?? null;
            $place = $times[$clip->id] + ($learned['offset_ticks'] ?? 0) - $times[$zero->id];
            if (isset($places[$clip->id])) {
                $miss = $places[$clip->id]['ticks'] - $place;
                if (
                    $way === Way::Timecode &&
                    ($learned['sure'] ?? false) &&
                    $places[$clip->id]['link']?->way === Way::Sound &&
                    abs($miss) > self::HALF_FRAME_TICKS
                ) {
                    $this->remarks[$clip->id]['clock_disagrees_ticks'] = $miss;
                    // The clip's own clock is right about its neighbours and wrong about this one: a person has to look.
                    $this->remarks[$clip->id]['doubt'] = true;
                }

                continue;
            }
            // A group that sound tied together is moved as one, and only by the clock of its recorder file or one that sound has taught.
            if ($this->network->isTied($zero->id, $clip->id) || (!$this->network->isAlone($clip->id) && $learned === null)) {
                continue;
            }
            $isZeroDevice = $clip->device === $zero->device;
            $sure = $way === Way::Timecode && ($isZeroDevice || ($learned['sure'] ?? false)) && !($isAssumed[$clip->id] ?? false);
            $this->network->tie(
                new Link(
                    $zero->id,
                    $clip->id,
                    $place,
                    $way,
                    match (true) {
                        $sure => $isZeroDevice ? 1.0 : 0.9,
                        $way === Way::Clock => 0.4,
                        default => 0.6,
                    },
                    $sure,
                    evidence: ['clock_offset_ticks' => $learned['offset_ticks'] ?? 0, 'votes' => $learned['votes'] ?? 0],
                ),
            );
        }
    }

    /**
     * @param  array<string, int>  $times  of day, as recorded
     * @return array<string, int>
     */
    private function onTheirDays(array $times): array
    {
        $zero = $this->zero;
        $days = TimeOfDay::unwrapped($times);
        foreach ($days as $id => $time) {
            $recorded = $this->clips[$id]->recordedTicks;
            if ($recorded === null || $zero->recordedTicks === null) {
                continue;
            }
            // The day on which both clocks of the device, that of its timecode and that of its dates, say about the same.
            $apart = $recorded - $zero->recordedTicks - ($times[$id] - $days[$zero->id]);
            $whole = (int) round($apart / Ticks::PER_DAY);
            if (abs($apart - $whole * Ticks::PER_DAY) < self::DATE_TICKS) {
                $days[$id] = $times[$id] + $whole * Ticks::PER_DAY;
            }
        }

        return $days;
    }

    /**
     * A point that belongs to the clip's take. Where nothing is known of takes all clips are one; where something is, a
     * clip without a take belongs to none.
     *
     * @return array<string, int>
     */
    private function ofTake(LineupClip $clip, ?int $ticks): array
    {
        $this->hasTakes ??= array_filter($this->clips, static fn(LineupClip $one): bool => $one->take !== null) !== [];

        return $ticks === null || ($clip->take === null && $this->hasTakes) ? [] : [$clip->take ?? '' => $ticks];
    }

    /**
     * Ties clips of different devices where the same point is on both: a marker of one name, or the in-point, out-point
     * or start of clips of one take. A point that several clips of a device have says nothing of any of them but the first.
     *
     * @param  callable(LineupClip): array<string, int>  $pointsOf  ticks from the clip's start, by name
     */
    private function byPoint(Way $way, float $confidence, callable $pointsOf): void
    {
        $points = [];
        foreach ($this->clips as $clip) {
            foreach ($pointsOf($clip) as $name => $ticks) {
                $points[(string) $name][$clip->device] ??= [$clip, $ticks];
            }
        }
        foreach ($points as $name => $devices) {
            // The clip that has a place already, else a recording, else the first says where the point lies.
            usort(
                $devices,
                fn(array $x, array $y): int => [$this->network->isTied($y[0]->id, $this->zero->id), $y[0]->isSound] <=> [
                    $this->network->isTied($x[0]->id, $this->zero->id),
                    $x[0]->isSound,
                ],
            );
            [$base, $onBase] = $devices[0];
            foreach (array_slice($devices, 1) as [$clip, $ticks]) {
                if (!$this->network->isTied($base->id, $clip->id)) {
                    $this->network->tie(
                        new Link($base->id, $clip->id, $onBase - $ticks, $way, $confidence, false, null, $ticks, [
                            'point' => (string) $name,
                        ]),
                    );
                }
            }
        }
    }

    /** What sound says of pairs whose places are known already must agree with these; where it does not, the weakest link is named. */
    private function checkCycles(): void
    {
        $places = [];
        foreach ($this->network->closing as $link) {
            if ($link->way !== Way::Sound) {
                continue;
            }
            $here = $places[$link->a] ?? null;
            if ($here === null || !isset($here[$link->b])) {
                $here = $this->network->from($this->network->isTied($link->a, $this->zero->id) ? $this->zero->id : $link->a);
                $places += array_fill_keys(array_keys($here), $here);
            }
            $miss = Network::miss($link, $here);
            if (abs($miss) <= self::CYCLE_TICKS) {
                continue;
            }
            $weakest = $link;
            $placed = null;
            foreach (Network::way($link->a, $link->b, $here) as $id => $part) {
                if ($part->confidence < $weakest->confidence) {
                    $weakest = $part;
                    $placed = (string) $id;
                }
            }
            // Where the pair itself is the weakest, the end that is believed less takes the doubt.
            $placed ??= self::belief($here[$link->a]) < self::belief($here[$link->b]) ? $link->a : $link->b;
            $this->remarks[$placed]['contradicted_by'] = $placed === $link->b ? $link->a : $link->b;
            $this->remarks[$placed]['weakest_link'] = [$weakest->a, $weakest->b];
            $this->remarks[$placed]['miss_ticks'] = $miss;
            // A faint likeness that fits nowhere takes little from what is sure otherwise.
            $this->remarks[$placed]['doubt'] =
                $link->sure || (!$weakest->sure && $weakest !== $link) || ($this->remarks[$placed]['doubt'] ?? false);
        }
    }

    /** @param  array{ticks: int, ppm: float, link: Link|null}  $place */
    private static function belief(array $place): float
    {
        return $place['link'] === null ? 1.0 : $place['link']->confidence;
    }

    private function result(): LineupResult
    {
        $placements = $strays = $isSeen = [];
        $group = 0;
        foreach ([$this->zero, ...array_values($this->clips)] as $root) {
            if (isset($isSeen[$root->id])) {
                continue;
            }
            if ($root !== $this->zero && $this->network->isAlone($root->id)) {
                $isSeen[$root->id] = true;
                $strays[$root->id] =
                    $this->reasons[$root->id] ?? 'Nothing it was compared with has the same sound, and no clock ties it to the others.';

                continue;
            }
            $placed = [];
            foreach ($this->network->from($root->id) as $id => $place) {
                $isSeen[$id] = true;
                $placed[$id] = $this->placement((string) $id, $place, $placed, $group);
            }
            array_push($placements, ...array_values($placed));
            $group++;
        }
        $placements = $this->withoutOverlaps($placements, $strays);
        usort(
            $placements,
            static fn(Placement $x, Placement $y): int => [$x->group, $x->startTicks, $x->id] <=> [$y->group, $y->startTicks, $y->id],
        );

        return new LineupResult(
            $this->zero->id,
            $this->lanes(),
            $placements,
            $strays,
            $this->offsets[Way::Timecode->value] ?? [],
            $this->offsets[Way::Clock->value] ?? [],
            $this->laid($placements),
        );
    }

    /**
     * A place is as sure as the weakest of the links that lead to it.
     *
     * @param  array{ticks: int, ppm: float, link: Link|null}  $place
     * @param  array<string, Placement>  $placed  nearer to the root
     */
    private function placement(string $id, array $place, array $placed, int $group): Placement
    {
        $remarks = $this->remarks[$id] ?? [];
        $doubt = $remarks['doubt'] ?? false;
        unset($remarks['doubt']);
        $device = $this->clips[$id]->device;
        $link = $place['link'];
        if ($link === null) {
            $first = $id === $this->zero->id ? null : $this->network->strongest($id);

            return new Placement(
                $id,
                $device,
                0,
                $first->way ?? Way::Start,
                $first->confidence ?? 1.0,
                $first->sure ?? true,
                null,
                $group,
                ($first === null ? ['anchor' => true] : ['against' => $first->other($id)] + $first->evidence) + $remarks,
            );
        }
        $from = $placed[$link->other($id)];
        $confidence = min($link->confidence, $from->confidence) * ($doubt ? 0.5 : (isset($remarks['contradicted_by']) ? 0.9 : 1.0));

        return new Placement(
            $id,
            $device,
            $place['ticks'],
            $link->way,
            round($confidence, 3),
            $link->sure && $from->sure && !$doubt,
            $link->ppm === null ? null : round($place['ppm'], 2),
            $group,
            ['against' => $link->other($id)] + $link->evidence + $remarks,
        );
    }

    /**
     * One device records one clip at a time: where two overlap by more than half a frame, the weaker one is wrong.
     *
     * @param  list<Placement>  $placements
     * @param  array<string, string>  $strays
     * @return list<Placement>
     */
    private function withoutOverlaps(array $placements, array &$strays): array
    {
        $isFixed = static fn(Placement $placement): bool => ($placement->evidence['locked'] ?? false) ||
            ($placement->evidence['anchor'] ?? false);
        usort(
            $placements,
            static fn(Placement $x, Placement $y): int => [$isFixed($y), $y->sure, $y->confidence] <=> [
                $isFixed($x),
                $x->sure,
                $x->confidence,
            ],
        );
        $kept = $lanes = [];
        foreach ($placements as $placement) {
            $end = $placement->startTicks + $this->clips[$placement->id]->durationTicks;
            $over = null;
            foreach ($lanes[$placement->group][$placement->device] ?? [] as $other) {
                $otherEnd = $other->startTicks + $this->clips[$other->id]->durationTicks;
                if (min($end, $otherEnd) - max($placement->startTicks, $other->startTicks) > self::HALF_FRAME_TICKS) {
                    $over = $other;
                    break;
                }
            }
            if ($over === null || $isFixed($placement)) {
                $kept[] = $placement;
                $lanes[$placement->group][$placement->device][] = $placement;
            } else {
                $strays[$placement->id] = sprintf('The best place for it overlaps %s of the same device.', $over->id);
            }
        }

        return $kept;
    }

    /**
     * Where groups that nothing ties to the zero lie beside it, as far as clocks say: no tie, and no more than an order in
     * which a person finds them.
     *
     * @param  list<Placement>  $placements
     * @return array<int, array{offset_ticks: int, by: 'timecode'|'date'|'order'}> by group, those after the first
     */
    private function laid(array $placements): array
    {
        $groups = $ends = [];
        foreach ($placements as $place) {
            $groups[$place->group][] = $place;
            $ends[$place->group] = max($ends[$place->group] ?? 0, $place->startTicks + $this->clips[$place->id]->durationTicks);
        }
        $timecode = fn(LineupClip $clip): ?int => $clip->startTicks === null
            ? null
            : $clip->startTicks + ($this->offsets[Way::Timecode->value][$clip->device]['offset_ticks'] ?? 0);
        $date = fn(LineupClip $clip): ?int => $clip->recordedTicks === null
            ? null
            : $clip->recordedTicks + ($this->offsets[Way::Clock->value][$clip->device]['offset_ticks'] ?? 0);
        $laid = [];
        $last = $ends[0] ?? 0;
        ksort($groups);
        foreach ($groups as $group => $own) {
            if ($group === 0) {
                continue;
            }
            // A date says the day as well; a timecode that starts at nought each morning says neither.
            $byDate = $this->between($groups[0] ?? [], $own, $date);
            $byTimecode = $this->between($groups[0] ?? [], $own, $timecode);
            // What is half a day before belongs to the morning after.
            $byTimecode = $byTimecode === null || $byTimecode >= -intdiv(Ticks::PER_DAY, 2) ? $byTimecode : $byTimecode + Ticks::PER_DAY;
            $isOneDevice =
                array_intersect(
                    array_map(static fn(Placement $place): string => $place->device, $own),
                    array_map(static fn(Placement $place): string => $place->device, $groups[0] ?? []),
                ) !== [];
            [$offset, $by] = match (true) {
                $byTimecode !== null && ($isOneDevice || $byDate === null) => [$byTimecode, 'timecode'],
                $byDate !== null => [$byDate, 'date'],
                default => [$last + self::APART_TICKS, 'order'],
            };
            $laid[$group] = ['offset_ticks' => $offset, 'by' => $by];
            $last = max($last, $offset + $ends[$group]);
        }

        return $laid;
    }

    /**
     * @param  list<Placement>  $zero
     * @param  list<Placement>  $own
     * @param  callable(LineupClip): ?int  $timeOf
     * @return int|null ticks from the zero to the group's own, null where one of them has no such times
     */
    private function between(array $zero, array $own, callable $timeOf): ?int
    {
        $middle = function (array $places) use ($timeOf): ?int {
            $times = [];
            foreach ($places as $place) {
                $time = $timeOf($this->clips[$place->id]);
                if ($time !== null) {
                    $times[] = $time - $place->startTicks;
                }
            }
            sort($times);

            return $times[intdiv(count($times), 2)] ?? null;
        };
        [$from, $to] = [$middle($zero), $middle($own)];

        return $from === null || $to === null ? null : $to - $from;
    }

    /** @return list<string> */
    private function lanes(): array
    {
        $lanes = $sound = [];
        foreach ($this->clips as $clip) {
            if ($clip->isSound) {
                $sound[$clip->device] = true;
            } else {
                $lanes[$clip->device] = true;
            }
        }

        return array_map('strval', array_keys($lanes + $sound));
    }
}
