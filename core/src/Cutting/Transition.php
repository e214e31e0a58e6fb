<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;

/**
 * How an item begins or ends, where it is not a cut: a name such as `dissolve`, how long, and how much of it lies before the
 * cut; ticks. Kept, and not drawn.
 */
final readonly class Transition
{
    public function __construct(public string $name, public int $durationTicks, public int $beforeTicks = 0)
    {
        if ($durationTicks <= 0) {
            throw InvalidSequence::field('transition', 'lasts no time');
        }
        if ($beforeTicks < 0 || $beforeTicks > $durationTicks) {
            throw InvalidSequence::field('transition', 'lies off its cut');
        }
    }

    /** @return array{name: string, duration_ticks: int, before_ticks?: int} */
    public function toArray(): array
    {
        return [
            'name' => $this->name,
            'duration_ticks' => $this->durationTicks,
            ...$this->beforeTicks === 0 ? [] : ['before_ticks' => $this->beforeTicks],
        ];
    }
}
