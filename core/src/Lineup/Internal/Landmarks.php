<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\Sound\GuideTrack;

/**
 * Says where clips may lie along each other without comparing every one with every other: three loud beginnings and
 * the times between them are a landmark, and clips that hear the same event have many of them in common at one lag.
 *
 * A vote over an index of hashed constellations, as Wang 2003 did with spectral peaks. Times are steps of 10 ms. Cost:
 * a clip looks at the landmarks that are like its own, not at the other clips.
 *
 * @internal
 */
final class Landmarks
{
    /** Beginnings kept to the second, the strongest of their neighbourhood. */
    private const PER_SECOND = 2;

    /** Steps of a neighbourhood. */
    private const STRETCH = 200;

    /** Steps that two beginnings lie apart at least, and the furthest that three of them reach. */
    private const APART = 8;

    private const REACH = 250;

    /** Beginnings after the first that make landmarks with it. */
    private const FOLLOWING = 5;

    /** Landmarks of one clip that ask; those of longer ones are taken evenly from all over it. */
    private const ASKING = 800;

    /** Steps in which votes count together: what 120 ppm make of five minutes. */
    private const TOGETHER = 4;

    /** Steps; half of the range of lags that are counted, 23 hours. */
    private const CENTRE = 1 << 23;

    /** @var array<int, list<int>> clip and step of the first beginning, by the two distances */
    private array $index = [];

    /** @var list<string> step and distances by clip, 64 bits each: a list of lists would take twenty times as much */
    private array $landmarks = [];

    /** @return int the clip's number here */
    public function add(GuideTrack $track): int
    {
        $number = count($this->landmarks);
        $this->landmarks[] = self::of($track);
        foreach (unpack('P*', $this->landmarks[$number]) ?: [] as $one) {
            $this->index[$one & 0xffff][] = ($number << 24) | ($one >> 16);
        }

        return $number;
    }

    /**
     * @param  array<int, true>  $without  clips that are not asked about
     * @return array<int, list<array{lag: int, votes: int}>> by clip, the two best lags: steps at which the asking clip
     *                                                       begins in it
     */
    public function like(int $clip, array $without): array
    {
        $votes = [];
        $own = $this->landmarks[$clip];
        $count = intdiv(strlen($own), 8);
        $step = max(1, intdiv($count, self::ASKING));
        for ($i = 0; $i < $count; $i += $step) {
            $one = (int) (unpack('P', $own, 8 * $i)[1] ?? 0);
            [$at, $first, $second] = [$one >> 16, ($one >> 8) & 0xff, $one & 0xff];
            for ($a = $first - 1; $a <= $first + 1; $a++) {
                for ($b = $second - 1; $b <= $second + 1; $b++) {
                    foreach ($this->index[($a << 8) | $b] ?? [] as $entry) {
                        $key = (($entry >> 24) << 24) | intdiv(($entry & 0xffffff) - $at + self::CENTRE, self::TOGETHER);
                        $votes[$key] = ($votes[$key] ?? 0) + 1;
                    }
                }
            }
        }

        return $this->best($votes, $without + [$clip => true]);
    }

    /**
     * @param  array<int, int>  $votes
     * @param  array<int, true>  $without
     * @return array<int, list<array{lag: int, votes: int}>>
     */
    private function best(array $votes, array $without): array
    {
        $best = [];
        foreach ($votes as $key => $count) {
            $other = $key >> 24;
            // A lag may fall on the border of two counts.
            $count += $votes[$key + 1] ?? 0;
            if ($count < 2 || isset($without[$other])) {
                continue;
            }
            $found = ['lag' => ($key & 0xffffff) * self::TOGETHER + self::TOGETHER - self::CENTRE, 'votes' => $count];
            $first = $best[$other][0] ?? null;
            if ($first === null || $count > $first['votes']) {
                $isSame = $first !== null && abs($first['lag'] - $found['lag']) <= 4 * self::TOGETHER;
                $best[$other] = $first === null ? [$found] : ($isSame ? [$found, ...array_slice($best[$other], 1)] : [$found, $first]);
            } elseif (abs($first['lag'] - $found['lag']) > 4 * self::TOGETHER && $count > ($best[$other][1]['votes'] ?? 0)) {
                $best[$other][1] = $found;
            }
        }

        return $best;
    }

    /**
     * @return string by their steps: the step, and eight bits for each of the two distances
     */
    private static function of(GuideTrack $track): string
    {
        $peaks = self::beginnings($track);
        $found = '';
        $count = count($peaks);
        for ($i = 0; $i < $count; $i++) {
            for ($j = $i + 1; $j < $count && $j <= $i + self::FOLLOWING; $j++) {
                $first = $peaks[$j] - $peaks[$i];
                for ($k = $j + 1; $k < $count && $k <= $i + self::FOLLOWING; $k++) {
                    $second = $peaks[$k] - $peaks[$i];
                    if ($second > self::REACH) {
                        break;
                    }
                    $found .= pack('P', ($peaks[$i] << 16) | ($first << 8) | $second);
                }
            }
        }

        return $found;
    }

    /**
     * The strongest beginnings of each stretch.
     *
     * @return list<int> steps, in order
     */
    private static function beginnings(GuideTrack $track): array
    {
        $kept = [];
        $last = $track->hasUsableSound() ? $track->steps() - 1 : -1;
        for ($from = 0; $from <= $last; $from += self::STRETCH) {
            $first = max(0, $from - 1);
            $onset = $track->onset($first, $from + self::STRETCH + 1 - $first);
            $here = [];
            for ($i = max(1, $from), $end = min($last, $from + self::STRETCH); $i < $end; $i++) {
                $at = $i - $first;
                if ($onset[$at] > 0.5 && $onset[$at] >= $onset[$at - 1] && $onset[$at] > $onset[$at + 1]) {
                    $here[$i] = $onset[$at];
                }
            }
            arsort($here);
            $chosen = [];
            foreach ($here as $at => $_) {
                foreach ($chosen as $other) {
                    if (abs($other - $at) < self::APART) {
                        continue 2;
                    }
                }
                $chosen[] = $at;
                if (count($chosen) === 2 * self::PER_SECOND) {
                    break;
                }
            }
            sort($chosen);
            array_push($kept, ...$chosen);
        }

        return $kept;
    }
}
