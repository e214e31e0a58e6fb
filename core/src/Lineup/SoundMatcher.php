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

    private readonly CoarseSearch $coarse;

    public function __construct()
    {
        $this->coarse = new CoarseSearch();
    }

    /** How well $b may fit somewhere along $a, for screening many pairs cheaply; standard deviations, 0 at the least. */
    public function likeness(string $aId, GuideTrack $a, string $bId, GuideTrack $b): float
    {
        return $this->coarse->peaks($aId, $a, $bId, $b)[0]['score'] ?? 0.0;
    }

    /** @return SoundMatch|null null when the sounds have no place in common worth a look */
    public function match(string $aId, GuideTrack $a, string $bId, GuideTrack $b): ?SoundMatch
    {
        $tried = [];
        foreach ($this->coarse->peaks($aId, $a, $bId, $b) as $peak) {
            if ($peak['score'] < self::COARSE_FLOOR) {
                break;
            }
            $fine = FineSearch::refine($a, $b, $peak['lag']);
            if ($fine === null) {
                continue;
            }
            $tried[] = $fine;
            if (count($tried) === 1 && $fine['height'] > 25.0 && $fine['windows'] < $fine['agreeing'] * 2) {
                break; // nothing else can come near
            }
        }
        usort($tried, static fn (array $x, array $y): int => $y['height'] <=> $x['height']);
        $best = $tried[0] ?? null;
        if ($best === null) {
            return null;
        }
        $second = null;
        foreach (array_slice($tried, 1) as $other) {
            if (abs($other['offset'] - $best['offset']) > 80) {
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
        );
    }

    public function forget(): void
    {
        $this->coarse->forget();
    }
}
