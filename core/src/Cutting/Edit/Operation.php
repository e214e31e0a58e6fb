<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Sequence;

/**
 * One edit of a cut as a value: a pure function from a sequence to a sequence. Times are ticks on the sequence's own clock,
 * tracks and items are counted from 0. What it would break it refuses, and changes nothing then.
 */
interface Operation
{
    /** @throws Refused */
    public function apply(Sequence $sequence): Sequence;
}
