<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

/** A place of an item, or a stretch of it, that somebody named. Ticks from the item's start. */
final readonly class Marker
{
    public function __construct(public int $atTicks, public int $durationTicks = 0, public string $name = '', public string $note = '') {}

    /** The same place in a part of the item that begins so many ticks later. */
    public function later(int $ticks): self
    {
        return new self($this->atTicks - $ticks, $this->durationTicks, $this->name, $this->note);
    }

    /** @return array{at_ticks: int, duration_ticks: int, name: string, note: string} */
    public function toArray(): array
    {
        return ['at_ticks' => $this->atTicks, 'duration_ticks' => $this->durationTicks, 'name' => $this->name, 'note' => $this->note];
    }
}
