<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\SoundMatch;

/**
 * Learns from sound how far the clocks of the devices lie apart: every sure match of two clips votes, and the densest
 * bunch of votes within the tolerance wins.
 *
 * @internal
 */
final class DeviceClocks
{
    /** @var array<string, array{offset_ticks: int, votes: int, sure: bool}> */
    public readonly array $offsets;

    /**
     * @param  array<string, LineupClip>  $clips
     * @param  list<SoundMatch>  $matches
     * @param  array<string, int>  $times  each clip's own time, ticks
     * @param  int  $toleranceTicks  how near votes lie to count together
     */
    public function __construct(array $clips, array $matches, array $times, private readonly int $toleranceTicks, string $zeroDevice)
    {
        $votes = [];
        foreach ($matches as $match) {
            if (!$match->isSure() || !isset($times[$match->a], $times[$match->b])) {
                continue;
            }
            $a = $clips[$match->a]->device;
            $b = $clips[$match->b]->device;
            // What to add to b's clock to get a's.
            $offset = $match->offsetTicks - ($times[$match->b] - $times[$match->a]);
            $votes[$a][$b][] = $offset;
            $votes[$b][$a][] = -$offset;
        }
        $this->offsets = $this->spread($votes, $zeroDevice);
    }

    /**
     * @param  array<string, array<string, list<int>>>  $votes
     * @return array<string, array{offset_ticks: int, votes: int, sure: bool}>
     */
    private function spread(array $votes, string $zeroDevice): array
    {
        $known = [$zeroDevice => ['offset_ticks' => 0, 'votes' => 0, 'sure' => true]];
        $queue = [$zeroDevice];
        while ($queue !== []) {
            $device = (string) array_shift($queue);
            foreach ($votes[$device] ?? [] as $other => $offsets) {
                if (isset($known[$other])) {
                    continue;
                }
                [$offset, $count] = $this->mode($offsets);
                $known[$other] = [
                    'offset_ticks' => $known[$device]['offset_ticks'] + $offset,
                    'votes' => $count,
                    'sure' => $known[$device]['sure'] && $count >= 2 && 2 * $count > count($offsets),
                ];
                $queue[] = (string) $other;
            }
        }

        return $known;
    }

    /**
     * @param  non-empty-list<int>  $offsets
     * @return array{int, int} median of the densest bunch, and its size
     */
    private function mode(array $offsets): array
    {
        sort($offsets);
        $bestFrom = 0;
        $bestCount = 0;
        for ($from = 0, $to = 0, $n = count($offsets); $from < $n; $from++) {
            while ($to < $n && $this->toleranceTicks >= $offsets[$to] - $offsets[$from]) {
                $to++;
            }
            if ($to - $from > $bestCount) {
                $bestCount = $to - $from;
                $bestFrom = $from;
            }
        }

        return [$offsets[$bestFrom + intdiv($bestCount - 1, 2)], $bestCount];
    }
}
