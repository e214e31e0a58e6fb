<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;
use Cartella\Core\Time\FrameRate;

/**
 * A cut as a store keeps it: the JSON of {@see Sequence::toArray} with each source written once and of each item only what is
 * not usual, a fifth of the size. Read back, it is the same cut to the byte.
 */
final class Packed
{
    public static function write(Sequence $sequence): string
    {
        $sources = $numbers = [];
        $tracks = [];
        foreach ($sequence->tracks as $track) {
            $items = [];
            foreach ($track->items as $item) {
                $source = json_encode($item->source->toArray(), self::FLAGS);
                $numbers[$source] ??= count($numbers);
                $sources[$numbers[$source]] = $item->source->toArray();
                $items[] = self::item($item, $numbers[$source]);
            }
            $tracks[] = ['items' => $items] + $track->toHead();
        }

        return json_encode(['sources' => $sources, 'tracks' => $tracks] + $sequence->toHead(), self::FLAGS);
    }

    /** @throws InvalidSequence if it was not written by {@see self::write}, or breaks a rule */
    public static function read(string $packed): Sequence
    {
        $root = new SequenceReader('sequence', json_decode($packed, true));
        $sources = self::sources($root->map('sources'));
        $tracks = [];
        $plain = new Speed();
        foreach ($root->list('tracks') as $track) {
            $items = [];
            foreach ($track->map('items') as $entry) {
                $items[] = self::unpacked($entry, $sources, $plain);
            }
            $tracks[] = Sequence::track($track, $items);
        }

        return Sequence::headed($root, $tracks);
    }

    private const FLAGS = JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PRESERVE_ZERO_FRACTION;

    /** @return list<mixed> source, first tick of it, length, place, name; and what is not usual, by name */
    private static function item(Item $item, int $source): array
    {
        $rest = [
            ...$item->enabled ? [] : ['enabled' => false],
            ...$item->markers === []
                ? []
                : ['markers' => array_map(static fn(Marker $marker): array => $marker->toArray(), $item->markers)],
            ...$item->told() === [] ? [] : ['metadata' => $item->told()],
            ...$item->speed->isPlain() ? [] : ['speed' => (string) $item->speed],
            ...$item->transition === null ? [] : ['transition' => array_values($item->transition->toArray())],
            ...$item->ending === null ? [] : ['ending' => array_values($item->ending->toArray())],
            ...$item->angles === null ? [] : ['angles' => $item->angles->toArray()],
        ];

        return [
            $source,
            $item->sourceStartTicks,
            $item->durationTicks,
            $item->recordStartTicks,
            $item->name,
            ...$rest === [] ? [] : [$rest],
        ];
    }

    /**
     * Without a reader for each: a long cut has thousands, and a person waits.
     *
     * @param  array<mixed>  $list
     * @return list<Source>
     */
    private static function sources(array $list): array
    {
        $sources = $rates = [];
        foreach ($list as $one) {
            if (!is_array($one) || !is_string($one['id'] ?? null) || !is_int($one['duration_ticks'] ?? null)) {
                throw InvalidSequence::field('sequence', 'has a source that is none');
            }
            $rate = $one['rate'] ?? null;
            $sources[] = new Source(
                $one['id'],
                (string) ($one['name'] ?? ''),
                $one['path'] ?? null,
                $one['reel'] ?? null,
                (int) ($one['start_ticks'] ?? 0),
                $one['duration_ticks'],
                $rate === null ? null : ($rates[$rate] ??= FrameRate::parse($rate)),
            );
        }

        return $sources;
    }

    /** @param  list<Source>  $sources */
    private static function unpacked(mixed $entry, array $sources, Speed $plain): Item
    {
        if (!is_array($entry) || count($entry) < 5 || !isset($sources[$entry[0]])) {
            throw InvalidSequence::field('sequence', 'has an item that is none');
        }
        [$source, $start, $duration, $record, $name] = $entry;
        if (!isset($entry[5])) {
            return new Item($name, $sources[$source], $start, $duration, $record, speed: $plain);
        }
        $rest = $entry[5];
        // Nearly all have a take and channels, and nothing else.
        if (count($rest) === 1 && isset($rest['metadata']) && !isset($rest['metadata']['asc_cdl'])) {
            return new Item($name, $sources[$source], $start, $duration, $record, metadata: $rest['metadata'], speed: $plain);
        }
        [$look, $metadata] = isset($rest['metadata']) ? SequenceReader::lookIn($rest['metadata']) : [null, []];

        return new Item(
            $name,
            $sources[$source],
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
