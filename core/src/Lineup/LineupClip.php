<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup;

use Cartella\Core\Sound\GuideTrack;

/**
 * One clip as line-up needs it. Its sound is fetched only when a way asks for it, and let go afterwards.
 */
final class LineupClip
{
    /**
     * @param  int|null  $startTicks  its own timecode, ticks since midnight
     * @param  int|null  $recordedTicks  its recorded date and time, ticks since any fixed instant, a second coarse
     * @param  (\Closure(): GuideTrack)|null  $sound  null for a clip without sound; may throw a CartellaException
     * @param  int|null  $lockedTicks  a place that a person has fixed, on the clock of the line-up's zero
     * @param  array<string, int>  $marks  ticks from the clip's start, by the name of the marker
     * @param  int|null  $inTicks  its in-point, ticks from the clip's start
     * @param  int|null  $outTicks  its out-point, likewise
     * @param  array<string, int>  $ties  where it begins in other clips, ticks, as a person has tied them, by their ids
     * @param  string|null  $take  what the clip is known to show or to have heard: clips of one take belong together
     */
    public function __construct(
        public readonly string $id,
        public readonly string $device,
        public readonly bool $isSound,
        public readonly int $durationTicks,
        public readonly ?int $startTicks = null,
        public readonly ?int $recordedTicks = null,
        public readonly ?\Closure $sound = null,
        public readonly ?int $lockedTicks = null,
        public readonly array $marks = [],
        public readonly ?int $inTicks = null,
        public readonly ?int $outTicks = null,
        public readonly ?string $take = null,
        public readonly array $ties = [],
    ) {}
}
