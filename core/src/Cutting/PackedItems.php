<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;

/**
 * The items of a track as {@see Packed} keeps them, made into items when somebody looks at them: most steps touch one track of
 * many, and a person waits for them.
 *
 * @internal
 */
final readonly class PackedItems
{
    /**
     * @param  list<array{0: int, 1: int, 2: int, 3: int, 4: string, 5?: array<string, mixed>}>  $entries  source, first tick of it,
     *     length, place, name; and what is not usual, by name
     *
     * @throws InvalidSequence if one of them is none
     */
    public function __construct(public array $entries, public PackedSources $sources)
    {
        foreach ($entries as $entry) {
            if (!is_array($entry) || count($entry) < 5 || !is_int($entry[0]) || !$sources->has($entry[0])) {
                throw InvalidSequence::field('sequence', 'has an item that is none');
            }
        }
    }

    /** @return list<Item> */
    public function items(): array
    {
        $plain = new Speed();

        return array_map(fn(array $entry): Item => $this->unpacked($entry, $plain), $this->entries);
    }

    public function endTicks(): int
    {
        $last = $this->entries[count($this->entries) - 1] ?? null;

        return $last === null ? 0 : $last[3] + $last[2];
    }

    /** @return list<string> the source of each of them, by its id */
    public function ids(): array
    {
        $ids = $this->sources->ids();

        return array_map(static fn(array $entry): string => $ids[$entry[0]], $this->entries);
    }

    /** @param  array{0: int, 1: int, 2: int, 3: int, 4: string, 5?: array<string, mixed>}  $entry */
    private function unpacked(array $entry, Speed $plain): Item
    {
        [$source, $start, $duration, $record, $name] = $entry;
        $source = $this->sources->get($source);
        if (!isset($entry[5])) {
            return new Item($name, $source, $start, $duration, $record, speed: $plain);
        }
        $rest = $entry[5];
        // Nearly all have a take and channels, and nothing else.
        if (count($rest) === 1 && isset($rest['metadata']) && !isset($rest['metadata']['asc_cdl'])) {
            return new Item($name, $source, $start, $duration, $record, metadata: $rest['metadata'], speed: $plain);
        }
        [$look, $metadata] = isset($rest['metadata']) ? SequenceReader::lookIn($rest['metadata']) : [null, []];

        return new Item(
            $name,
            $source,
            $start,
            $duration,
            $record,
            $rest['enabled'] ?? true,
            array_map(
                static fn(array $one): Marker => new Marker($one['at_ticks'], $one['duration_ticks'], $one['name'], $one['note']),
                $rest['markers'] ?? [],
            ),
            $metadata,
            $look,
            isset($rest['speed']) ? Speed::parse($rest['speed']) : $plain,
            isset($rest['transition']) ? new Transition(...$rest['transition']) : null,
            isset($rest['angles']) ? (new SequenceReader('angles', $rest['angles']))->angles() : null,
            isset($rest['ending']) ? new Transition(...$rest['ending']) : null,
        );
    }
}
