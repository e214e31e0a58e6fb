<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\SequenceReader;
use Cartella\Core\Exchange\Exception\InvalidSequence;

/** Turns plain clips of a range that were angle items into such again, at what they show now. */
final readonly class Angled implements Operation
{
    public function __construct(public int $fromTicks, public int $toTicks) {}

    public function apply(Sequence $sequence): Sequence
    {
        return Rules::each($sequence, $this->fromTicks, $this->toTicks, self::turned(...), 'Nothing there was cut between angles.');
    }

    private static function turned(Item $item): ?Item
    {
        $kept = $item->metadata['angles'] ?? null;
        if ($item->angles !== null || $kept === null) {
            return null;
        }
        try {
            $angles = (new SequenceReader('angles', $kept))->angles();
            foreach ($angles->list as $angle => ['source' => $source]) {
                if ($source->id === $item->source->id) {
                    return $item->with(
                        metadata: array_diff_key($item->metadata, ['angles' => true]),
                        angles: $angles->turned((string) $angle),
                    );
                }
            }
        } catch (InvalidSequence) {
            // Somebody else wrote something of that name.
        }

        return null;
    }
}
