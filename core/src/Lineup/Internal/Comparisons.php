<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\SoundMatch;
use Cartella\Core\Lineup\SoundMatcher;

/**
 * What clips were compared with so far, and what came of it: of each pair the best match, with its rival.
 *
 * @internal
 */
final class Comparisons
{
    /** @var array<string, SoundMatch|null> by pair */
    public array $compared = [];

    /** @var array<string, list<string>> pairs by the clip that asked */
    private array $pairs = [];

    /** @var array<string, true> pairs whose match the present look has set */
    private array $changed = [];

    public function __construct(private readonly SoundMatcher $matcher, private readonly Heard $heard) {}

    /** What is compared from here on is the present look. */
    public function begin(): void
    {
        $this->changed = [];
    }

    /** @return array<string, SoundMatch|null> what the present look has set, by pair */
    public function changed(): array
    {
        return array_intersect_key($this->compared, $this->changed);
    }

    /** @return list<string> */
    public function pairsOf(LineupClip $clip): array
    {
        return $this->pairs[$clip->id] ?? [];
    }

    /** @param  array{pairs: list<string>, compared: array<string, SoundMatch|null>}  $known  from a run that was killed */
    public function recall(LineupClip $clip, array $known): void
    {
        $this->compared = $known['compared'] + $this->compared;
        $this->pairs[$clip->id] = $known['pairs'];
    }

    /**
     * What the second process found, beside what was compared here before.
     *
     * @param  array<string, SoundMatch|null>  $compared
     */
    public function take(LineupClip $clip, array $compared): void
    {
        foreach ($compared as $pair => $match) {
            $before = $this->compared[$pair] ?? null;
            if ($before === null || ($match !== null && $match->height > $before->height)) {
                $this->compared[$pair] = $match?->remembering($before);
                $this->changed[$pair] = true;
                $this->pairs[$clip->id][] = $pair;
            }
        }
    }

    /** What the clip was found along so far, recordings first. */
    public function best(LineupClip $clip): ?SoundMatch
    {
        $own = array_values(
            array_filter(array_map(fn(string $pair): ?SoundMatch => $this->compared[$pair], $this->pairs[$clip->id] ?? [])),
        );
        usort(
            $own,
            fn(SoundMatch $x, SoundMatch $y): int => [$y->isSure(), $this->heard->clips[$y->a]->isSound, $y->height] <=> [
                $x->isSure(),
                $this->heard->clips[$x->a]->isSound,
                $x->height,
            ],
        );

        return $own[0] ?? null;
    }

    /**
     * Compares a clip with the files of one device at some places. Of places that claim the same part of the clip the
     * best one stands, and the next best is its rival, be it in another file.
     *
     * @param  list<array{other: string, lag: int, votes: float|int}>  $places
     * @param  bool  $again  also pairs that were compared at other places before
     * @return bool whether a sure place is among them
     */
    public function compare(LineupClip $clip, array $places, bool $closely, bool $again = false): bool
    {
        $lags = [];
        foreach ($places as $place) {
            $lags[$place['other']][] = $place['lag'];
        }
        $found = [];
        foreach ($lags as $other => $own) {
            $pair = $this->pair($clip->id, (string) $other);
            if (!$again && array_key_exists($pair, $this->compared)) {
                continue;
            }
            $match = $this->matcher->among(
                (string) $other,
                $this->heard->tracks[$other],
                $clip->id,
                $this->heard->tracks[$clip->id],
                $own,
                $closely,
            );
            $this->pairs[$clip->id][] = $pair;
            $before = $this->compared[$pair] ?? null;
            // A rival that is looked at again now says by itself what it is worth.
            $isAgain = $before?->secondIn !== null && isset($lags[$before->secondIn]);
            $stands = $before !== null && ($match === null || (!$isAgain && $match->height <= $before->height));
            $this->compared[$pair] = match (true) {
                $stands => $before,
                $isAgain => $match,
                default => $match?->remembering($before),
            };
            $this->changed[$pair] = true;
            if ($this->compared[$pair] !== null) {
                $found[$pair] = $this->compared[$pair];
            }
        }
        uasort($found, static fn(SoundMatch $x, SoundMatch $y): int => $y->height <=> $x->height);
        $kept = [];
        foreach ($found as $pair => $match) {
            foreach ($kept as $best => $stronger) {
                if ($this->claimTheSame($clip, $match, $stronger)) {
                    $kept[$best] = $this->compared[$best] = $stronger->against($match);
                    $this->compared[$pair] = null;

                    continue 2;
                }
            }
            $kept[$pair] = $match;
        }

        return array_filter(array_keys($kept), fn(string $pair): bool => $this->compared[$pair]?->isSure() === true) !== [];
    }

    /** Whether two recordings both claim to have run during the same part of a clip. */
    private function claimTheSame(LineupClip $clip, SoundMatch $x, SoundMatch $y): bool
    {
        $from = max(-$x->offsetTicks, -$y->offsetTicks, 0);
        $to = min(
            $this->heard->clips[$x->a]->durationTicks - $x->offsetTicks,
            $this->heard->clips[$y->a]->durationTicks - $y->offsetTicks,
            $clip->durationTicks,
        );
        $shorter = min($this->heard->clips[$x->a]->durationTicks, $this->heard->clips[$y->a]->durationTicks, $clip->durationTicks);

        return $to - $from > intdiv($shorter, 4);
    }

    private function pair(string $x, string $y): string
    {
        return strcmp($x, $y) < 0 ? "$x\n$y" : "$y\n$x";
    }
}
