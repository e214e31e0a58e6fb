<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;
use Cartella\Core\Time\Exception\InvalidTime;
use Cartella\Core\Time\FrameRate;

/**
 * A cut as a value: tracks of items on one clock. Items never overlap on a track, last longer than nothing and stay
 * inside their source; {@see self::fromArray} is the only door for JSON and checks all of it.
 */
final readonly class Sequence
{
    /**
     * @param  int  $startTicks  the label of the first frame, ticks since midnight
     * @param  list<Track>  $tracks
     * @param  array<string, mixed>  $metadata
     */
    public function __construct(
        public string $title,
        public FrameRate $rate,
        public int $startTicks,
        public array $tracks,
        public array $metadata = [],
    ) {}

    public function durationTicks(): int
    {
        $end = 0;
        foreach ($this->tracks as $track) {
            foreach ($track->items as $item) {
                $end = max($end, $item->recordEndTicks());
            }
        }

        return $end;
    }

    /**
     * @param  mixed  $data  decoded JSON, see docs/formats.md
     *
     * @throws InvalidSequence naming the place that breaks a rule
     */
    public static function fromArray(mixed $data): self
    {
        $root = new SequenceReader('sequence', $data);
        try {
            $rate = FrameRate::parse($root->text('rate'));
        } catch (InvalidTime $trouble) {
            throw InvalidSequence::field('rate', 'is not a frame rate');
        }
        $tracks = [];
        foreach ($root->list('tracks') as $track) {
            $kind = $track->text('kind');
            if ($kind !== 'picture' && $kind !== 'sound') {
                throw InvalidSequence::field($track->where, 'is neither picture nor sound');
            }
            $tracks[] = new Track($kind, $track->text('name', $kind === 'picture' ? 'V' : 'A'), self::items($track));
        }

        return new self($root->text('title', 'Untitled'), $rate, $root->whole('start_ticks', 0), $tracks, $root->map('metadata'));
    }

    /** @return list<Item> */
    private static function items(SequenceReader $track): array
    {
        $items = [];
        $end = 0;
        foreach ($track->list('items') as $entry) {
            $source = $entry->child('source');
            $rate = $source->text('rate', '');
            try {
                $sourceRate = $rate === '' ? null : FrameRate::parse($rate);
            } catch (InvalidTime) {
                throw InvalidSequence::field($source->where, 'has a rate that is not known');
            }
            $item = new Item(
                $entry->text('name', $source->text('name', '')),
                new Source(
                    $source->text('id'),
                    $source->text('name', ''),
                    $source->text('path', '') ?: null,
                    $source->text('reel', '') ?: null,
                    $source->whole('start_ticks', 0),
                    $source->whole('duration_ticks'),
                    $sourceRate,
                ),
                $entry->whole('source_start_ticks'),
                $entry->whole('duration_ticks'),
                $entry->whole('record_start_ticks'),
                $entry->flag('enabled', true),
                $entry->markers(),
                $entry->map('metadata'),
            );
            if ($item->durationTicks <= 0) {
                throw InvalidSequence::field($entry->where, 'lasts no time');
            }
            if ($item->sourceStartTicks < 0 || $item->sourceStartTicks + $item->durationTicks > $item->source->durationTicks) {
                throw InvalidSequence::field($entry->where, 'reads outside its source');
            }
            if ($item->recordStartTicks < $end) {
                throw InvalidSequence::field($entry->where, 'overlaps the item before it, or is out of order');
            }
            $end = $item->recordEndTicks();
            $items[] = $item;
        }

        return $items;
    }

    /** @return array<string, mixed> what {@see self::fromArray} takes */
    public function toArray(): array
    {
        return [
            'title' => $this->title,
            'rate' => $this->rate->label(),
            'start_ticks' => $this->startTicks,
            'tracks' => array_map(
                static fn(Track $track): array => [
                    'kind' => $track->kind,
                    'name' => $track->name,
                    'items' => array_map(
                        static fn(Item $item): array => [
                            'name' => $item->name,
                            'source' => [
                                'id' => $item->source->id,
                                'name' => $item->source->name,
                                'path' => $item->source->path,
                                'reel' => $item->source->reel,
                                'start_ticks' => $item->source->startTicks,
                                'duration_ticks' => $item->source->durationTicks,
                                'rate' => $item->source->rate?->label(),
                            ],
                            'source_start_ticks' => $item->sourceStartTicks,
                            'duration_ticks' => $item->durationTicks,
                            'record_start_ticks' => $item->recordStartTicks,
                            'enabled' => $item->enabled,
                            'markers' => $item->markers,
                            'metadata' => (object) $item->metadata,
                        ],
                        $track->items,
                    ),
                ],
                $this->tracks,
            ),
            'metadata' => (object) $this->metadata,
        ];
    }
}
