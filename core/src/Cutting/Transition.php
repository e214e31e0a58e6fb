<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;

/** How an item begins, where it is not a cut: a name such as `dissolve`, and how long, ticks. Kept, and not drawn. */
final readonly class Transition
{
    public function __construct(public string $name, public int $durationTicks)
    {
        if ($durationTicks <= 0) {
            throw InvalidSequence::field('transition', 'lasts no time');
        }
    }
}
