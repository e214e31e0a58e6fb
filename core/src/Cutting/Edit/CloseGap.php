<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;

/** Moves what stands behind a gap of a track up to what stands before it. */
final readonly class CloseGap implements Operation
{
    /** @param  int  $atTicks  any place of the gap */
    public function __construct(public int $track, public int $atTicks) {}

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

        return $sequence->with([$this->track => Track::moved($track->items, $to, $from - $to)]);
    }
}
