<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;

/**
 * A cut as a store keeps it: the JSON of {@see Sequence::toArray} with each source written once and of each item only what is
 * not usual, a third of the size. Each track and each source is a JSON of its own within it: what nobody looks at is not even
 * parsed. Read back, it is the same cut to the byte.
 */
final class Packed
{
    public static function write(Sequence $sequence): string
    {
        $kept = self::kept($sequence);
        $sources = $kept?->list() ?? [];
        $numbers = array_flip($sources);
        $number = static function (array $source) use (&$sources, &$numbers): int {
            $key = json_encode($source, self::FLAGS);
            if (!isset($numbers[$key])) {
                $numbers[$key] = count($sources);
                $sources[] = $key;
            }

            return $numbers[$key];
        };
        $tracks = [];
        foreach ($sequence->tracks as $track) {
            $packed = $track->packed();
            $tracks[] =
                [
                    'items' =>
                        $packed !== null && $kept !== null ? $packed->written() : json_encode(self::items($track, $number), self::FLAGS),
                    'count' => $track->count(),
                    'end_ticks' => $track->endTicks(),
                ] + $track->toHead();
        }

        $whole = ['first' => self::first($sequence), 'sources' => $sources, 'tracks' => $tracks] + $sequence->toHead();

        return json_encode($whole, self::FLAGS);
    }

    /** What it shows first, by its source's id: lists of cuts have a picture of it without reading the cut. */
    private static function first(Sequence $sequence): ?string
    {
        foreach ($sequence->tracks as $track) {
            if ($track->count() > 0) {
                return $track->sourceIds()[0];
            }
        }

        return null;
    }

    /**
     * The list of sources that goes on, so that tracks at which nobody looked are written as they were read. Null begins anew: where
     * there is none yet, or where it would hold more that nothing shows than what something does.
     */
    private static function kept(Sequence $sequence): ?PackedSources
    {
        $kept = null;
        $items = 0;
        foreach ($sequence->tracks as $track) {
            $items += $track->count();
            $packed = $track->packed();
            if ($packed === null) {
                continue;
            }
            if ($packed->written() === null || ($kept !== null && $packed->sources !== $kept)) {
                return null;
            }
            $kept = $packed->sources;
        }

        return $kept === null || count($kept->list()) > 2 * $items ? null : $kept;
    }

    /** @throws InvalidSequence if it was not written by {@see self::write}, or breaks a rule; of its items when they are looked at */
    public static function read(string $packed): Sequence
    {
        $root = new SequenceReader('sequence', json_decode($packed, true));
        $sources = new PackedSources($root->map('sources'));
        $tracks = [];
        foreach ($root->list('tracks') as $track) {
            $isNew = $track->has('count');
            $tracks[] = Sequence::track(
                $track,
                new PackedItems(
                    $isNew ? $track->text('items') : array_values($track->map('items')),
                    $sources,
                    $isNew ? $track->whole('count') : null,
                    $isNew ? $track->whole('end_ticks') : null,
                ),
            );
        }

        return Sequence::headed($root, $tracks);
    }

    private const FLAGS = JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PRESERVE_ZERO_FRACTION;

    /**
     * @param  callable(array<string, mixed>): int  $number  of a source in the new list
     * @return list<array<int, mixed>>
     */
    private static function items(Track $track, callable $number): array
    {
        $items = $known = [];
        foreach ($track->items as $item) {
            $items[] = self::item($item, $known[spl_object_id($item->source)] ??= $number($item->source->toArray()));
        }

        return $items;
    }

    /** @return list<mixed> as {@see PackedItems} takes it */
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
}
