<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup;

use Cartella\Core\Lineup\Internal\DeviceClocks;
use Cartella\Core\Lineup\Internal\Graph;
use Cartella\Core\Lineup\Internal\SoundPairs;
use Cartella\Core\Time\Ticks;

/**
 * Lays clips of several devices on one clock, by the ways asked for in their order, and says what it could not place.
 *
 * The clock is that of `zero`, the first sound clip (the first clip where there is none): its first sample is 0 ticks.
 * Sound ties clips exactly; clocks then tie what sound left apart, with the offset that sound taught. A clip that
 * nothing places is a stray with a reason, and stops no other.
 */
final class Lineup
{
    /** Distance at which two statements about the same pair contradict each other. */
    private const CYCLE_TICKS = Ticks::PER_SECOND / 200;

    /** Half a frame at 25 fps: what a person would see. */
    private const HALF_FRAME_TICKS = Ticks::PER_SECOND / 50;

    private readonly Graph $graph;

    /** @var array<string, LineupClip> */
    private array $clips = [];

    /** @var array<string, array{way: Way, confidence: float, sure: bool, drift: ?float, evidence: array<string, mixed>}> */
    private array $found = [];

    /** @var list<SoundMatch> */
    private array $matches = [];

    /** @var array<string, string> */
    private array $reasons = [];

    /** @var array<string, array{offset_ticks: int, votes: int, sure: bool}> */
    private array $offsets = [];

    /** @param  list<LineupClip>  $clips */
    private function __construct(array $clips)
    {
        $this->graph = new Graph();
        foreach ($clips as $clip) {
            $this->clips[$clip->id] = $clip;
            $this->graph->add($clip->id);
        }
    }

    /**
     * @param  list<LineupClip>  $clips  with different ids
     * @param  list<Way>  $ways
     * @param  (callable(string $id, int $done, int $total): void)|null  $progress  called as sound is compared; may throw to stop
     */
    public static function of(array $clips, array $ways, ?callable $progress = null): LineupResult
    {
        $lineup = new self($clips);
        $zero = $lineup->zero();
        if ($zero === null) {
            return new LineupResult(null, [], [], [], []);
        }
        $lineup->tieLocked($zero);
        foreach ($ways as $way) {
            match ($way) {
                Way::Sound => $lineup->bySound($progress),
                Way::Timecode => $lineup->byClock($way, static fn (LineupClip $clip): ?int => $clip->startTicks, intdiv(Ticks::PER_SECOND, 24), $zero),
                Way::Clock => $lineup->byClock($way, static fn (LineupClip $clip): ?int => $clip->recordedTicks, Ticks::PER_SECOND, $zero),
                Way::Start => $lineup->byStart($zero),
                Way::Hand => null,
            };
        }

        return $lineup->result($zero);
    }

    private function zero(): ?LineupClip
    {
        foreach ($this->clips as $clip) {
            if ($clip->isSound) {
                return $clip;
            }
        }

        return array_values($this->clips)[0] ?? null;
    }

    /** A person's places come first and are never moved. */
    private function tieLocked(LineupClip $zero): void
    {
        foreach ($this->clips as $clip) {
            if ($clip->lockedTicks !== null && $clip->id !== $zero->id) {
                $this->graph->tie($zero->id, $clip->id, $clip->lockedTicks);
                $this->found[$clip->id] = ['way' => Way::Hand, 'confidence' => 1.0, 'sure' => true, 'drift' => null, 'evidence' => ['locked' => true]];
            }
        }
    }

    private function bySound(?callable $progress): void
    {
        $pairs = new SoundPairs($progress);
        $this->matches = $pairs->find(array_values($this->clips));
        $this->reasons += $pairs->silent;
        foreach ($this->matches as $match) {
            $miss = $this->graph->tie($match->a, $match->b, $match->offsetTicks);
            $evidence = [
                'against' => $match->a,
                'height' => $match->height,
                'runner_up' => $match->runnerUp,
                'agreeing' => $match->agreeing,
                'windows' => $match->windows,
                'residual_ticks' => $match->residualTicks,
                'second_ticks' => $match->secondTicks,
            ];
            $entry = ['way' => Way::Sound, 'confidence' => $match->confidence(), 'sure' => $match->isSure(), 'drift' => $match->driftPpm, 'evidence' => $evidence];
            if ($miss === null) {
                $this->found[$match->b] ??= $entry;
                $this->found[$match->a] ??= ['evidence' => ['against' => $match->b] + $evidence, 'drift' => null] + $entry;
            } elseif (abs($miss) > self::CYCLE_TICKS && $match->isSure() && ($this->found[$match->b]['way'] ?? null) === Way::Sound) {
                // Two strong statements that cannot both be true: neither is sure any more.
                $this->found[$match->b]['sure'] = false;
                $this->found[$match->b]['confidence'] = round($this->found[$match->b]['confidence'] / 2, 3);
                $this->found[$match->b]['evidence']['contradicted_by'] = $match->a;
            }
        }
    }

    /** @param  callable(LineupClip): ?int  $timeOf */
    private function byClock(Way $way, callable $timeOf, int $toleranceTicks, LineupClip $zero): void
    {
        $times = array_filter(array_map($timeOf, $this->clips), static fn (?int $time): bool => $time !== null);
        if (! isset($times[$zero->id])) {
            return;
        }
        // A night shoot passes midnight: a time half a day before the zero's belongs to the morning after.
        if ($way === Way::Timecode) {
            foreach ($times as $id => $time) {
                $times[$id] = \Cartella\Core\Time\TimeOfDay::onDayOf($time, $times[$zero->id]);
            }
        }
        $clocks = (new DeviceClocks($this->clips, $this->matches, $times, $toleranceTicks, $zero->device))->offsets;
        $this->offsets = $this->offsets === [] ? $clocks : $this->offsets;
        foreach ($this->clips as $clip) {
            if (! isset($times[$clip->id])) {
                continue;
            }
            $learned = $clocks[$clip->device] ?? null;
            $place = $times[$clip->id] + ($learned['offset_ticks'] ?? 0) - $times[$zero->id];
            $isZeroDevice = $clip->device === $zero->device;
            if ($this->graph->isTied($zero->id, $clip->id)) {
                $this->compareWithClock($clip, $zero, $place, $learned, $way);

                continue;
            }
            $alone = ! isset($this->found[$clip->id]);
            // A group that sound tied together is moved as one, and only by the clock of its recorder file or one that sound has taught.
            if (! $alone && $learned === null) {
                continue;
            }
            $this->graph->tie($zero->id, $clip->id, $place);
            $sure = $way === Way::Timecode && ($isZeroDevice || ($learned['sure'] ?? false));
            $entry = [
                'way' => $way,
                'confidence' => match (true) {
                    $sure => $isZeroDevice ? 1.0 : 0.9,
                    $way === Way::Clock => 0.4,
                    default => 0.6,
                },
                'sure' => $sure,
                'drift' => null,
                'evidence' => ['clock_offset_ticks' => $learned['offset_ticks'] ?? 0, 'votes' => $learned['votes'] ?? 0],
            ];
            if ($alone || $clip->isSound) {
                $this->found[$clip->id] = $entry;
            }
        }
    }

    /** @param  array{offset_ticks: int, votes: int, sure: bool}|null  $learned */
    private function compareWithClock(LineupClip $clip, LineupClip $zero, int $place, ?array $learned, Way $way): void
    {
        if ($way !== Way::Timecode || ! ($learned['sure'] ?? false) || ! isset($this->found[$clip->id])) {
            return;
        }
        $miss = $this->graph->find($clip->id)[1] - $this->graph->find($zero->id)[1] - $place;
        if (abs($miss) > self::HALF_FRAME_TICKS) {
            $this->found[$clip->id]['evidence']['clock_disagrees_ticks'] = $miss;
        }
    }

    private function byStart(LineupClip $zero): void
    {
        foreach ($this->clips as $clip) {
            if (! isset($this->found[$clip->id]) && ! $this->graph->isTied($zero->id, $clip->id)) {
                $this->graph->tie($zero->id, $clip->id, 0);
                $this->found[$clip->id] = ['way' => Way::Start, 'confidence' => 0.3, 'sure' => false, 'drift' => null, 'evidence' => []];
            }
        }
    }

    private function result(LineupClip $zero): LineupResult
    {
        $this->found[$zero->id] = ['way' => $this->found[$zero->id]['way'] ?? Way::Start, 'confidence' => 1.0, 'sure' => true, 'drift' => null, 'evidence' => ['anchor' => true]];
        $groups = [];
        $placements = [];
        $strays = [];
        $zeroStart = [];
        [$zeroRoot, $fromRoot] = $this->graph->find($zero->id);
        $groups[$zeroRoot] = 0;
        $zeroStart[$zeroRoot] = $fromRoot;
        foreach ($this->clips as $clip) {
            $entry = $this->found[$clip->id] ?? null;
            if ($entry === null) {
                $strays[$clip->id] = $this->reasons[$clip->id] ?? 'Nothing it was compared with has the same sound, and no clock ties it to the others.';

                continue;
            }
            [$root, $start] = $this->graph->find($clip->id);
            $groups[$root] ??= count($groups);
            $zeroStart[$root] ??= $start;
            $placements[] = new Placement(
                $clip->id, $clip->device, $start - $zeroStart[$root], $entry['way'], $entry['confidence'], $entry['sure'],
                $entry['drift'], $groups[$root], $entry['evidence'],
            );
        }
        $placements = $this->withoutOverlaps($placements, $strays);
        usort($placements, static fn (Placement $x, Placement $y): int => [$x->group, $x->startTicks, $x->id] <=> [$y->group, $y->startTicks, $y->id]);

        return new LineupResult($zero->id, $this->lanes(), $placements, $strays, $this->offsets);
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
        usort($placements, static fn (Placement $x, Placement $y): int => [$y->evidence['locked'] ?? false, $y->confidence] <=> [$x->evidence['locked'] ?? false, $x->confidence]);
        $kept = [];
        foreach ($placements as $placement) {
            $end = $placement->startTicks + $this->clips[$placement->id]->durationTicks;
            $over = null;
            foreach ($kept as $other) {
                $otherEnd = $other->startTicks + $this->clips[$other->id]->durationTicks;
                if ($other->device === $placement->device && $other->group === $placement->group
                    && min($end, $otherEnd) - max($placement->startTicks, $other->startTicks) > self::HALF_FRAME_TICKS) {
                    $over = $other;
                    break;
                }
            }
            if ($over === null || $placement->confidence === 1.0) {
                $kept[] = $placement;
            } else {
                $strays[$placement->id] = sprintf('The best place for it overlaps %s of the same device.', $over->id);
            }
        }

        return $kept;
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
