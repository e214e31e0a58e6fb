<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Sequence;

/** Takes a range of a track out and leaves a gap. */
final readonly class Lift implements Operation
{
    public function __construct(public int $track, public int $fromTicks, public int $toTicks) {}

    public function apply(Sequence $sequence): Sequence
    {
        $track = Rules::track($sequence, $this->track);
        Rules::range($sequence, $this->fromTicks, $this->toTicks);

        return $sequence->with([$this->track => $track->cleared($this->fromTicks, $this->toTicks)]);
    }
}
