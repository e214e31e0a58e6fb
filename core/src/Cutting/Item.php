<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;
use Cartella\Core\Look\Cdl;

/**
 * A stretch of a source on a track. Ticks; `$sourceStartTicks` counts from the source's first frame, `$recordStartTicks` from
 * the sequence's. It lasts longer than nothing and reads inside its source; nothing else can be made. `$transition` is how it
 * begins, `$ending` how it ends before nothing.
 */
final readonly class Item
{
    /** What of its metadata belongs to one of its edges. */
    public const FADES = ['fade_in_ticks' => true, 'fade_out_ticks' => true];

    /**
     * @param  list<Marker>  $markers
     * @param  array<string, mixed>  $metadata  kept and written back as it is
     *
     * @throws InvalidSequence if it lasts no time, reads outside its source or begins before the sequence
     */
    public function __construct(
        public string $name,
        public Source $source,
        public int $sourceStartTicks,
        public int $durationTicks,
        public int $recordStartTicks,
        public bool $enabled = true,
        public array $markers = [],
        public array $metadata = [],
        public ?Cdl $look = null,
        public Speed $speed = new Speed(),
        public ?Transition $transition = null,
        public ?Angles $angles = null,
        public ?Transition $ending = null,
    ) {
        if ($durationTicks <= 0) {
            throw InvalidSequence::field($name === '' ? 'item' : $name, 'lasts no time');
        }
        if (!$speed->fits($sourceStartTicks, $durationTicks, $source->durationTicks)) {
            throw InvalidSequence::field($name === '' ? 'item' : $name, 'reads outside its source');
        }
        if ($recordStartTicks < 0) {
            throw InvalidSequence::field($name === '' ? 'item' : $name, 'begins before the sequence');
        }
        if ($angles !== null && $angles->list[$angles->current]['source']->id !== $source->id) {
            throw InvalidSequence::field($name === '' ? 'item' : $name, 'shows another source than its angle');
        }
    }

    public function recordEndTicks(): int
    {
        return $this->recordStartTicks + $this->durationTicks;
    }

    /** Where it stops reading, ticks from the source's first frame. */
    public function sourceEndTicks(): int
    {
        return $this->sourceStartTicks + $this->speed->ofSource($this->durationTicks);
    }

    public function isOver(int $fromTicks, int $toTicks): bool
    {
        return $this->recordStartTicks < $toTicks && $fromTicks < $this->recordEndTicks();
    }

    /** Whether it is another item but for its place; a long cut is compared so in a few milliseconds. */
    public function isSameElsewhere(self $other): bool
    {
        return $this->sourceStartTicks === $other->sourceStartTicks &&
            $this->durationTicks === $other->durationTicks &&
            $this->enabled === $other->enabled &&
            $this->name === $other->name &&
            ($this->source === $other->source || $this->source == $other->source) &&
            $this->markers == $other->markers &&
            $this->metadata == $other->metadata &&
            ($this->look === $other->look || $this->look == $other->look) &&
            ($this->speed === $other->speed || $this->speed == $other->speed) &&
            ($this->transition === $other->transition || $this->transition == $other->transition) &&
            ($this->angles === $other->angles || $this->angles == $other->angles) &&
            ($this->ending === $other->ending || $this->ending == $other->ending);
    }

    public function at(int $recordStartTicks): self
    {
        return $this->with(recordStart: $recordStartTicks);
    }

    /**
     * The part of it between two places of the sequence's clock, where it stood. A part that has lost its head begins with a cut,
     * one that has lost its tail ends with one.
     */
    public function between(int $fromTicks, int $toTicks): self
    {
        $from = max($fromTicks, $this->recordStartTicks);
        $to = min($toTicks, $this->recordEndTicks());
        $cut = $from - $this->recordStartTicks;
        $markers = [];
        foreach ($this->markers as $marker) {
            if ($marker->atTicks >= $cut && $marker->atTicks < $to - $this->recordStartTicks) {
                $markers[] = $marker->later($cut);
            }
        }

        return new self(
            $this->name,
            $this->source,
            $this->sourceStartTicks + $this->speed->ofSource($cut),
            $to - $from,
            $from,
            $this->enabled,
            $markers,
            array_diff_key($this->metadata, [
                ...$cut === 0 ? [] : ['fade_in_ticks' => true],
                ...$to === $this->recordEndTicks() ? [] : ['fade_out_ticks' => true],
            ]),
            $this->look,
            $this->speed,
            $cut === 0 ? $this->transition : null,
            $this->angles,
            $to === $this->recordEndTicks() ? $this->ending : null,
        );
    }

    /**
     * @param  list<Marker>|null  $markers
     * @param  array<string, mixed>|null  $metadata
     * @param  bool  $plain  without its angles
     */
    public function with(
        ?int $sourceStart = null,
        ?int $duration = null,
        ?int $recordStart = null,
        ?bool $enabled = null,
        ?array $markers = null,
        ?Source $source = null,
        ?Angles $angles = null,
        ?Transition $ending = null,
        ?array $metadata = null,
        bool $plain = false,
    ): self {
        return new self(
            $this->name,
            $source ?? $this->source,
            $sourceStart ?? $this->sourceStartTicks,
            $duration ?? $this->durationTicks,
            $recordStart ?? $this->recordStartTicks,
            $enabled ?? $this->enabled,
            $markers ?? $this->markers,
            $metadata ?? $this->metadata,
            $this->look,
            $this->speed,
            $this->transition,
            // Another source that is no angle of the line-up makes a plain item.
            $plain ? null : $angles ?? ($source === null ? $this->angles : null),
            $ending ?? $this->ending,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'name' => $this->name,
            'source' => $this->source->toArray(),
            'source_start_ticks' => $this->sourceStartTicks,
            'duration_ticks' => $this->durationTicks,
            'record_start_ticks' => $this->recordStartTicks,
            'enabled' => $this->enabled,
            'markers' => array_map(static fn(Marker $marker): array => $marker->toArray(), $this->markers),
            'metadata' => (object) $this->told(),
            ...$this->speed->isPlain() ? [] : ['speed' => (string) $this->speed],
            ...$this->transition === null ? [] : ['transition' => $this->transition->toArray()],
            ...$this->ending === null ? [] : ['ending' => $this->ending->toArray()],
            ...$this->angles === null ? [] : ['angles' => $this->angles->toArray()],
        ];
    }

    /** @return array<string, mixed> its metadata as it is exchanged: with the look, by the name that the standard gives it */
    public function told(): array
    {
        return $this->metadata + ($this->look === null ? [] : ['asc_cdl' => $this->look->toArray()]);
    }
}
