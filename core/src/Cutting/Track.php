<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;

/**
 * Items in record order without overlap; what lies between them is a gap. No other track can be made. Of one that is read from a
 * store they are made when somebody asks for them.
 *
 * @property-read list<Item> $items
 */
final class Track
{
    /** @var list<Item>|null null while nobody has asked for them */
    private ?array $made;

    private readonly ?PackedItems $packed;

    /**
     * @param  list<Item>|PackedItems  $items
     * @param  string  $role  from the production's track plan, such as `boom`; empty where nobody said
     * @param  bool  $locked  operations leave it as it is, or refuse
     * @param  bool  $enabled  off tracks are neither seen nor heard
     *
     * @throws InvalidSequence if items overlap or are out of order
     */
    public function __construct(
        public readonly TrackKind $kind,
        public readonly string $name,
        array|PackedItems $items,
        public readonly string $role = '',
        public readonly bool $locked = false,
        public readonly bool $enabled = true,
    ) {
        $this->packed = $items instanceof PackedItems ? $items : null;
        $this->made = $items instanceof PackedItems ? null : self::ordered($items, $name);
    }

    /** @throws InvalidSequence if what was packed breaks a rule */
    public function __get(string $property): mixed
    {
        if ($property !== 'items') {
            throw new \LogicException("A track has no $property.");
        }

        return $this->made ??= self::ordered($this->packed?->items() ?? [], $this->name);
    }

    /**
     * @param  list<Item>  $items
     * @return list<Item>
     */
    private static function ordered(array $items, string $name): array
    {
        $end = 0;
        foreach ($items as $index => $item) {
            if ($item->recordStartTicks < $end) {
                throw InvalidSequence::field("$name, item $index", 'overlaps the item before it, or is out of order');
            }
            $end = $item->recordEndTicks();
        }

        return $items;
    }

    /** @internal as it was read, for {@see Packed} */
    public function packed(): ?PackedItems
    {
        return $this->packed;
    }

    public function count(): int
    {
        return $this->packed === null ? count($this->items) : $this->packed->count();
    }

    /** @return list<string> the source of each item, by its id */
    public function sourceIds(): array
    {
        return $this->packed === null ? array_map(static fn(Item $item): string => $item->source->id, $this->items) : $this->packed->ids();
    }

    public function endTicks(): int
    {
        if ($this->packed !== null) {
            return $this->packed->endTicks();
        }

        return $this->items === [] ? 0 : $this->items[count($this->items) - 1]->recordEndTicks();
    }

    /** @param  list<Item>  $items */
    public function with(array $items): self
    {
        return new self($this->kind, $this->name, $items, $this->role, $this->locked, $this->enabled);
    }

    /**
     * The same items on a track of another head.
     *
     * @param  array{kind: string, name: string, role?: string, locked: bool, enabled: bool}  $head  as {@see self::toHead} gives it
     */
    public function headed(array $head): self
    {
        return new self(
            TrackKind::from($head['kind']),
            $head['name'],
            $this->packed ?? $this->items,
            $head['role'] ?? '',
            $head['locked'],
            $head['enabled'],
        );
    }

    /** The index of the item that plays at a place; null in a gap and behind the last. */
    public function indexAt(int $ticks): ?int
    {
        $low = 0;
        $high = count($this->items) - 1;
        while ($low <= $high) {
            $middle = intdiv($low + $high, 2);
            $item = $this->items[$middle];
            if ($ticks < $item->recordStartTicks) {
                $high = $middle - 1;
            } elseif ($ticks >= $item->recordEndTicks()) {
                $low = $middle + 1;
            } else {
                return $middle;
            }
        }

        return null;
    }

    public function isFree(int $fromTicks, int $toTicks, ?int $exceptIndex = null): bool
    {
        foreach ($this->items as $index => $item) {
            if ($index !== $exceptIndex && $item->isOver($fromTicks, $toTicks)) {
                return false;
            }
        }

        return true;
    }

    /** @return list<Item> with nothing between two places: what spans them is cut */
    public function cleared(int $fromTicks, int $toTicks): array
    {
        $items = [];
        foreach ($this->items as $item) {
            if (!$item->isOver($fromTicks, $toTicks)) {
                $items[] = $item;

                continue;
            }
            if ($item->recordStartTicks < $fromTicks) {
                $items[] = $item->between($item->recordStartTicks, $fromTicks);
            }
            if ($item->recordEndTicks() > $toTicks) {
                $items[] = $item->between($toTicks, $item->recordEndTicks());
            }
        }

        return $items;
    }

    /**
     * All that starts at a place or behind it, so much later.
     *
     * @param  list<Item>  $items
     * @return list<Item>
     */
    public static function moved(array $items, int $fromTicks, int $byTicks): array
    {
        return array_map(
            static fn(Item $item): Item => $item->recordStartTicks >= $fromTicks ? $item->at($item->recordStartTicks + $byTicks) : $item,
            $items,
        );
    }

    /**
     * Items in order, with another one among them.
     *
     * @param  list<Item>  $items
     * @return list<Item>
     */
    public static function placed(array $items, Item $item): array
    {
        $items[] = $item;
        usort($items, static fn(Item $x, Item $y): int => $x->recordStartTicks <=> $y->recordStartTicks);

        return $items;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return $this->toHead() + ['items' => array_map(static fn(Item $item): array => $item->toArray(), $this->items)];
    }

    /** @return array{kind: string, name: string, role?: string, locked: bool, enabled: bool} all but its items */
    public function toHead(): array
    {
        return [
            'kind' => $this->kind->value,
            'name' => $this->name,
            ...$this->role === '' ? [] : ['role' => $this->role],
            'locked' => $this->locked,
            'enabled' => $this->enabled,
        ];
    }
}
