<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

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

    /** @var list<list<array{int, int, int}>> step and distances by clip */
    private array $landmarks = [];

    /**
     * @param  list<float>  $onset  a step each, unit variance
     * @return int the clip's number here
     */
    public function add(array $onset): int
    {
        $number = count($this->landmarks);
        $own = self::of($onset);
        $this->landmarks[] = $own;
        foreach ($own as [$at, $first, $second]) {
            $this->index[($first << 8) | $second][] = ($number << 24) | $at;
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
        $step = max(1, intdiv(count($own), self::ASKING));
        for ($i = 0, $count = count($own); $i < $count; $i += $step) {
            [$at, $first, $second] = $own[$i];
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
     * @param  list<float>  $onset
     * @return list<array{int, int, int}>
     */
    private static function of(array $onset): array
    {
        $peaks = self::beginnings($onset);
        $found = [];
        $count = count($peaks);
        for ($i = 0; $i < $count; $i++) {
            for ($j = $i + 1; $j < $count && $j <= $i + self::FOLLOWING; $j++) {
                $first = $peaks[$j] - $peaks[$i];
                for ($k = $j + 1; $k < $count && $k <= $i + self::FOLLOWING; $k++) {
                    $second = $peaks[$k] - $peaks[$i];
                    if ($second > self::REACH) {
                        break;
                    }
                    $found[] = [$peaks[$i], $first, $second];
                }
            }
        }

        return $found;
    }

    /**
     * The strongest beginnings of each stretch.
     *
     * @param  list<float>  $onset
     * @return list<int> steps, in order
     */
    private static function beginnings(array $onset): array
    {
        $tops = [];
        for ($i = 1, $last = count($onset) - 1; $i < $last; $i++) {
            if ($onset[$i] > 0.5 && $onset[$i] >= $onset[$i - 1] && $onset[$i] > $onset[$i + 1]) {
                $tops[$i] = $onset[$i];
            }
        }
        $kept = [];
        for ($from = 0, $n = count($onset); $from < $n; $from += 200) {
            $here = [];
            for ($i = $from; $i < $from + 200; $i++) {
                if (isset($tops[$i])) {
                    $here[$i] = $tops[$i];
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
