<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;

/** Turns angle items of a range into the plain clips that they show. What else they could show stays in their metadata as `angles`. */
final readonly class Plain implements Operation
{
    public function __construct(public int $fromTicks, public int $toTicks) {}

    public function apply(Sequence $sequence): Sequence
    {
        return Rules::each(
            $sequence,
            $this->fromTicks,
            $this->toTicks,
            static fn(Item $item): ?Item => $item->angles === null
                ? null
                : $item->with(metadata: ['angles' => $item->angles->toArray()] + $item->metadata, plain: true),
            'Nothing there has angles.',
        );
    }
}
