<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;

/**
 * Moves what stands behind a gap of a track up to what stands before it; or on every unlocked track, as far as all of them have a gap
 * there.
 */
final readonly class CloseGap implements Operation
{
    /** @param  int  $atTicks  any place of the gap */
    public function __construct(public int $track, public int $atTicks, public bool $isEverywhere = false) {}

    public function apply(Sequence $sequence): Sequence
    {
        $track = Rules::track($sequence, $this->track);
        if ($this->atTicks < 0 || $this->atTicks >= $track->endTicks() || $track->indexAt($this->atTicks) !== null) {
            throw Refused::because('There is no gap.');
        }
        $from = 0;
        $to = 0;
        foreach ($track->items as $item) {
            if ($item->recordStartTicks > $this->atTicks) {
                $to = $item->recordStartTicks;

                break;
            }
            $from = $item->recordEndTicks();
        }
        if ($this->isEverywhere) {
            [$from, $to] = self::shared($sequence, $from, $to);

            return (new Extract($from, $to))->apply($sequence);
        }

        return $sequence->with([$this->track => Track::moved($track->items, $to, $from - $to)]);
    }

    /**
     * What of a stretch is empty on every unlocked track: what reaches into it leaves the rest, what begins in it what is before that.
     *
     * @return array{int, int}
     */
    private static function shared(Sequence $sequence, int $from, int $to): array
    {
        foreach ($sequence->tracks as $track) {
            foreach ($track->locked ? [] : $track->items as $item) {
                if ($item->isOver($from, $to)) {
                    [$from, $to] =
                        $item->recordStartTicks <= $from ? [min($to, $item->recordEndTicks()), $to] : [$from, $item->recordStartTicks];
                }
            }
        }

        return $from < $to ? [$from, $to] : throw Refused::because('Something plays in that gap on another track.');
    }
}
