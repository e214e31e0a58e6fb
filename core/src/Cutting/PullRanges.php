<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

/** The stretches of each source that a cut needs, with handles; those that touch are one. */
final class PullRanges
{
    /**
     * @param  int  $handleTicks  on either side, as far as the source has it
     * @return array<string, array{source: Source, ranges: list<array{int, int}>}> by the source's id; ticks from its first frame
     */
    public static function of(Sequence $sequence, int $handleTicks): array
    {
        $needs = [];
        foreach ($sequence->tracks as $track) {
            foreach ($track->items as $item) {
                $low = min($item->sourceStartTicks, $item->sourceEndTicks());
                $high = max($item->sourceStartTicks, $item->sourceEndTicks(), $low + 1);
                // Under a transition more of it is seen than its place on the track says.
                $before = $item->transition->beforeTicks ?? 0;
                $needs[$item->source->id]['source'] ??= $item->source;
                $needs[$item->source->id]['ranges'][] = [
                    max(0, $low - $before - $handleTicks),
                    min($item->source->durationTicks, $high + $handleTicks),
                ];
            }
        }
        foreach ($needs as $id => $need) {
            usort($need['ranges'], static fn(array $x, array $y): int => $x <=> $y);
            $joined = [];
            foreach ($need['ranges'] as [$from, $to]) {
                $last = array_key_last($joined);
                if ($last !== null && $from <= $joined[$last][1]) {
                    $joined[$last][1] = max($joined[$last][1], $to);
                } else {
                    $joined[] = [$from, $to];
                }
            }
            $needs[$id]['ranges'] = $joined;
        }

        return $needs;
    }
}
