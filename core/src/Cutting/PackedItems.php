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
final class PackedItems
{
    /** @var list<array{0: int, 1: int, 2: int, 3: int, 4: string, 5?: array<string, mixed>}>|null null while nobody has asked */
    private ?array $entries = null;

    /**
     * @param  mixed  $written  JSON of a list: of each item source, first tick of it, length, place, name; and what is not usual, by
     *     name. Or that list, as cuts were kept before
     * @param  int|null  $count  how many there are, and where the last one ends, ticks; null where that was not written
     */
    public function __construct(
        private readonly mixed $written,
        public readonly PackedSources $sources,
        private readonly ?int $count = null,
        private readonly ?int $endTicks = null,
    ) {}

    /**
     * @return list<array{0: int, 1: int, 2: int, 3: int, 4: string, 5?: array<string, mixed>}>
     *
     * @throws InvalidSequence if one of them is none
     */
    public function entries(): array
    {
        if ($this->entries !== null) {
            return $this->entries;
        }
        $entries = is_string($this->written) ? json_decode($this->written, true) : $this->written;
        if (!is_array($entries)) {
            throw InvalidSequence::field('sequence', 'has a track without items');
        }
        foreach ($entries as $entry) {
            if (!is_array($entry) || count($entry) < 5 || !is_int($entry[0]) || !$this->sources->has($entry[0])) {
                throw InvalidSequence::field('sequence', 'has an item that is none');
            }
        }

        return $this->entries = array_values($entries);
    }

    /** As they were read; null where cuts were kept otherwise. */
    public function written(): ?string
    {
        return is_string($this->written) ? $this->written : null;
    }

    public function count(): int
    {
        return $this->count ?? count($this->entries());
    }

    /** @return list<Item> */
    public function items(): array
    {
        $plain = new Speed();

        return array_map(fn(array $entry): Item => $this->unpacked($entry, $plain), $this->entries());
    }

    public function endTicks(): int
    {
        if ($this->endTicks !== null) {
            return $this->endTicks;
        }
        $last = array_slice($this->entries(), -1)[0] ?? null;

        return $last === null ? 0 : $last[3] + $last[2];
    }

    /** @return list<string> the source of each of them, by its id */
    public function ids(): array
    {
        return array_map(fn(array $entry): string => $this->sources->written($entry[0])['id'], $this->entries());
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
