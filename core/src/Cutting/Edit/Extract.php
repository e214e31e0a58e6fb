<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;

/** Takes a range of every unlocked track out, and closes what is left up. */
final readonly class Extract implements Operation
{
    public function __construct(public int $fromTicks, public int $toTicks) {}

    public function apply(Sequence $sequence): Sequence
    {
        Rules::range($sequence, $this->fromTicks, $this->toTicks);
        $changed = [];
        foreach ($sequence->tracks as $index => $track) {
            if (!$track->locked) {
                $left = $track->cleared($this->fromTicks, $this->toTicks);
                $changed[$index] = Track::moved($left, $this->toTicks, $this->fromTicks - $this->toTicks);
            }
        }

        return $sequence->with($changed);
    }
}
