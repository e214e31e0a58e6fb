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
            $end = max($end, $track->endTicks());
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

        return self::headed(
            $root,
            array_map(static fn(SequenceReader $track): Track => self::track($track, self::items($track)), $root->list('tracks')),
        );
    }

    /**
     * @internal
     *
     * @param  list<Track>  $tracks
     */
    public static function headed(SequenceReader $root, array $tracks): self
    {
        try {
            $rate = FrameRate::parse($root->text('rate'));
        } catch (InvalidTime $trouble) {
            throw InvalidSequence::field('rate', 'is not a frame rate');
        }

        return new self($root->text('title', 'Untitled'), $rate, $root->whole('start_ticks', 0), $tracks, $root->map('metadata'));
    }

    /**
     * @internal
     *
     * @param  list<Item>|PackedItems  $items
     */
    public static function track(SequenceReader $track, array|PackedItems $items): Track
    {
        $kind = TrackKind::tryFrom($track->text('kind')) ?? throw InvalidSequence::field($track->where, 'is neither picture nor sound');

        return new Track(
            $kind,
            $track->text('name', $kind === TrackKind::Picture ? 'V' : 'A'),
            $items,
            $track->text('role', ''),
            $track->flag('locked', false),
            $track->flag('enabled', true),
        );
    }

    /** @return list<Item> */
    private static function items(SequenceReader $track): array
    {
        $items = [];
        $end = 0;
        foreach ($track->list('items') as $entry) {
            $item = $entry->item($entry->whole('record_start_ticks'));
            if ($item->recordStartTicks < $end) {
                throw InvalidSequence::field($entry->where, 'overlaps the item before it, or is out of order');
            }
            $end = $item->recordEndTicks();
            $items[] = $item;
        }

        return $items;
    }

    /** @param  array<int, list<Item>>  $items  by track, for those that change */
    public function with(array $items): self
    {
        $tracks = $this->tracks;
        foreach ($items as $at => $list) {
            $tracks[$at] = $tracks[$at]->with($list);
        }

        return new self($this->title, $this->rate, $this->startTicks, $tracks, $this->metadata);
    }

    /** @param  list<Track>  $tracks */
    public function withTracks(array $tracks): self
    {
        return new self($this->title, $this->rate, $this->startTicks, $tracks, $this->metadata);
    }

    /**
     * The same cut at another rate and of another size, for one in which nothing lies yet.
     *
     * @param  array{width: int, height: int}|null  $size  pixels; null where nobody knows
     */
    public function shaped(FrameRate $rate, ?array $size): self
    {
        $metadata = ($size === null ? [] : ['picture_size' => $size]) + array_diff_key($this->metadata, ['picture_size' => true]);

        return new self($this->title, $rate, $this->startTicks, $this->tracks, $metadata);
    }

    /** @return array{width: int, height: int}|null of its first picture, pixels; null where nobody said */
    public function pictureSize(): ?array
    {
        $size = $this->metadata['picture_size'] ?? null;
        $isSize = static fn(mixed $pixels): bool => is_int($pixels) && $pixels >= 16 && $pixels <= 16_384;

        return is_array($size) && $isSize($size['width'] ?? null) && $isSize($size['height'] ?? null)
            ? ['width' => $size['width'], 'height' => $size['height']]
            : null;
    }

    /** @return array<string, mixed> what {@see self::fromArray} takes */
    public function toArray(): array
    {
        return ['tracks' => array_map(static fn(Track $track): array => $track->toArray(), $this->tracks)] + $this->toHead();
    }

    /** @return array{title: string, rate: string, start_ticks: int, metadata: object} all but its tracks */
    public function toHead(): array
    {
        return [
            'title' => $this->title,
            'rate' => $this->rate->label(),
            'start_ticks' => $this->startTicks,
            'metadata' => (object) $this->metadata,
        ];
    }
}
