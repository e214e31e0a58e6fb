<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup;

use Cartella\Core\Lineup\Internal\CoarseSearch;
use Cartella\Core\Lineup\Internal\FineSearch;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Time\Ticks;

/** Compares the sound of two clips: coarse by shape over all overlaps, then fine by phase at the few best places. */
final class SoundMatcher
{
    private const TICKS_PER_SAMPLE = Ticks::PER_SECOND / GuideTrack::SAMPLE_RATE;

    /** Places below this many standard deviations are not worth the fine search. */
    private const COARSE_FLOOR = 3.0;

    /** Height from which a quick look is enough. */
    private const CLEAR = 2 * SoundMatch::SURE_HEIGHT;

    /** Samples at 8 kHz within which two places are the same one. */
    private const SAME = 80;

    private readonly CoarseSearch $coarse;

    public function __construct()
    {
        $this->coarse = new CoarseSearch();
    }

    /**
     * Where $b may lie along $a, from a look at all overlaps.
     *
     * @return list<array{lag: int, score: float}> best first; lag in steps of 10 ms, score in standard deviations
     */
    public function places(string $aId, GuideTrack $a, string $bId, GuideTrack $b): array
    {
        return array_values(
            array_filter($this->coarse->peaks($aId, $a, $bId, $b), static fn(array $peak): bool => $peak['score'] >= self::COARSE_FLOOR),
        );
    }

    /** @return SoundMatch|null null when the sounds have no place in common worth a look */
    public function match(string $aId, GuideTrack $a, string $bId, GuideTrack $b): ?SoundMatch
    {
        return $this->among($aId, $a, $bId, $b, array_column($this->places($aId, $a, $bId, $b), 'lag'), true);
    }

    /**
     * The best of some places, with the next best as its rival.
     *
     * @param  list<int>  $lags  where $b may begin in $a, steps of 10 ms
     * @param  bool  $closely  with longer windows, for sound that is hard to hear
     */
    public function among(string $aId, GuideTrack $a, string $bId, GuideTrack $b, array $lags, bool $closely = false): ?SoundMatch
    {
        $tried = [];
        foreach ($lags as $lag) {
            $fine = $closely
                ? FineSearch::refine($a, $b, $lag, FineSearch::CLOSELY)
                : FineSearch::refine($a, $b, $lag, FineSearch::QUICKLY);
            if ($fine !== null && !$closely && $fine['height'] < self::CLEAR) {
                $fine = FineSearch::refine($a, $b, $lag);
            }
            if ($fine !== null) {
                $tried[] = $fine;
            }
        }
        usort($tried, static fn(array $x, array $y): int => $y['height'] <=> $x['height']);
        $best = $tried[0] ?? null;
        if ($best === null) {
            return null;
        }
        $second = null;
        foreach (array_slice($tried, 1) as $other) {
            if (abs($other['offset'] - $best['offset']) > self::SAME) {
                $second = $other;
                break;
            }
        }

        return new SoundMatch(
            $aId,
            $bId,
            (int) round($best['offset'] * self::TICKS_PER_SAMPLE),
            round($best['height'], 2),
            round($second['height'] ?? 0.0, 2),
            $best['agreeing'],
            $best['windows'],
            $best['drift_ppm'] === null ? null : round($best['drift_ppm'], 2),
            round($best['residual'] * self::TICKS_PER_SAMPLE),
            $second === null ? null : (int) round($second['offset'] * self::TICKS_PER_SAMPLE),
            (int) round($best['middle'] * self::TICKS_PER_SAMPLE),
        );
    }
}
