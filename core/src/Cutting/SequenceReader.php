<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Time\Exception\InvalidTime;
use Cartella\Core\Time\FrameRate;

/**
 * Takes typed fields out of decoded JSON and names the place of the first that is wrong.
 *
 * @internal
 */
final readonly class SequenceReader
{
    /** Ticks of ten thousand days: sums of a few stay within 64 bits. */
    private const LIMIT = 864_000_000 * 705_600_000;

    /** @var array<string, mixed> */
    private array $data;

    public function __construct(public string $where, mixed $data)
    {
        if (!is_array($data)) {
            throw InvalidSequence::field($where, 'is not an object');
        }
        $this->data = $data;
    }

    public function has(string $field): bool
    {
        return array_key_exists($field, $this->data);
    }

    public function text(string $field, ?string $default = null): string
    {
        $value = $this->data[$field] ?? $default;

        return is_string($value) ? $value : throw InvalidSequence::field("$this->where.$field", 'is not text');
    }

    public function whole(string $field, ?int $default = null): int
    {
        $value = $this->data[$field] ?? $default;
        if (!is_int($value) || abs($value) > self::LIMIT) {
            throw InvalidSequence::field("$this->where.$field", 'is not a whole number of ticks');
        }

        return $value;
    }

    public function flag(string $field, bool $default): bool
    {
        $value = $this->data[$field] ?? $default;

        return is_bool($value) ? $value : throw InvalidSequence::field("$this->where.$field", 'is neither true nor false');
    }

    /** @return array<string, mixed> */
    public function map(string $field): array
    {
        $value = $this->data[$field] ?? [];

        return is_array($value) ? $value : throw InvalidSequence::field("$this->where.$field", 'is not an object');
    }

    public function child(string $field): self
    {
        return new self("$this->where.$field", $this->data[$field] ?? null);
    }

    /** @return list<self> */
    public function list(string $field): array
    {
        $list = [];
        foreach (array_values($this->map($field)) as $index => $entry) {
            $list[] = new self("$this->where.{$field}[$index]", $entry);
        }

        return $list;
    }

    /** @throws InvalidSequence if the item cannot be; the place is named */
    public function item(int $recordStartTicks): Item
    {
        $source = $this->child('source')->source();
        [$look, $metadata] = self::lookIn($this->map('metadata'));
        $speed = ($this->data['speed'] ?? null) === null ? new Speed() : Speed::parse($this->text('speed'));
        $duration = $this->whole('duration_ticks');
        $start = $this->whole('source_start_ticks');
        if ($duration <= 0) {
            throw InvalidSequence::range($this->where, 'lasts no time');
        }
        if (!$speed->fits($start, $duration, $source->durationTicks)) {
            throw InvalidSequence::range($this->where, 'reads outside its source');
        }
        if ($recordStartTicks < 0) {
            throw InvalidSequence::range($this->where, 'begins before the sequence');
        }

        return new Item(
            $this->text('name', $source->name),
            $source,
            $start,
            $duration,
            $recordStartTicks,
            $this->flag('enabled', true),
            $this->markers(),
            $metadata,
            $look,
            $speed,
            $this->transition('transition'),
            ($this->data['angles'] ?? null) === null ? null : $this->child('angles')->angles(),
            $this->transition('ending'),
        );
    }

    /** @throws InvalidSequence if it lacks something, lasts no time or lies off its cut */
    private function transition(string $field): ?Transition
    {
        if (($this->data[$field] ?? null) === null) {
            return null;
        }
        $one = $this->child($field);

        return new Transition($one->text('name'), $one->whole('duration_ticks'), $one->whole('before_ticks', 0));
    }

    /** @throws InvalidSequence if one lacks something, or the current one is not among them */
    public function angles(): Angles
    {
        $list = [];
        foreach ($this->list('list') as $one) {
            $list[$one->text('angle')] = ['source' => $one->child('source')->source(), 'start_ticks' => $one->whole('start_ticks')];
        }

        return new Angles($this->text('lineup'), $this->text('current'), $list);
    }

    /** @throws InvalidSequence if it lacks something, or its rate is not known */
    public function source(): Source
    {
        // A long cut has thousands of sources and two or three rates.
        static $rates = [];
        $rate = $this->text('rate', '');
        try {
            $known = $rate === '' ? null : ($rates[$rate] ??= FrameRate::parse($rate));
        } catch (InvalidTime) {
            throw InvalidSequence::field($this->where, 'has a rate that is not known');
        }

        return new Source(
            $this->text('id'),
            $this->text('name', ''),
            $this->text('path', '') ?: null,
            $this->text('reel', '') ?: null,
            $this->whole('start_ticks', 0),
            $this->whole('duration_ticks'),
            $known,
        );
    }

    /**
     * A look that is whole, and the metadata without it; one that lacks something stays among them as it is.
     *
     * @param  array<string, mixed>  $metadata
     * @return array{Cdl|null, array<string, mixed>}
     */
    public static function lookIn(array $metadata): array
    {
        $look = $metadata['asc_cdl'] ?? null;
        if (!is_array($look) || !isset($look['slope'], $look['offset'], $look['power'], $look['saturation'])) {
            return [null, $metadata];
        }
        try {
            $cdl = Cdl::of($look['slope'], $look['offset'], $look['power'], (float) $look['saturation']);
        } catch (\Throwable) {
            return [null, $metadata];
        }
        unset($metadata['asc_cdl']);

        return [$cdl, $metadata];
    }

    /** @return list<Marker> */
    public function markers(): array
    {
        return array_map(
            static fn(self $marker): Marker => new Marker(
                $marker->whole('at_ticks'),
                $marker->whole('duration_ticks', 0),
                $marker->text('name', ''),
                $marker->text('note', ''),
            ),
            $this->list('markers'),
        );
    }
}
