<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;

/**
 * What else an item could show of the same moment: the sources of a line-up by the letters of their devices, each with the place of
 * its first frame on the line-up's clock, and which of them it shows. Ticks.
 */
final readonly class Angles
{
    /**
     * @param  string  $lineup  which line-up the places are of
     * @param  array<string, array{source: Source, start_ticks: int}>  $list  by letter
     *
     * @throws InvalidSequence if the current one is not among them
     */
    public function __construct(public string $lineup, public string $current, public array $list)
    {
        if (!isset($list[$current])) {
            throw InvalidSequence::field('angles', 'do not hold the current one');
        }
    }

    /** The moment of the line-up's clock that a place of the current source shows. */
    public function moment(int $sourceTicks): int
    {
        return $this->list[$this->current]['start_ticks'] + $sourceTicks;
    }

    /** Where another angle shows a moment, ticks from its first frame; null where there is no such angle. */
    public function placeOf(string $angle, int $momentTicks): ?int
    {
        return isset($this->list[$angle]) ? $momentTicks - $this->list[$angle]['start_ticks'] : null;
    }

    public function turned(string $angle): self
    {
        return new self($this->lineup, $angle, $this->list);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'lineup' => $this->lineup,
            'current' => $this->current,
            'list' => array_map(
                static fn(int|string $angle, array $one): array => [
                    'angle' => (string) $angle,
                    'source' => $one['source']->toArray(),
                    'start_ticks' => $one['start_ticks'],
                ],
                array_keys($this->list),
                array_values($this->list),
            ),
        ];
    }
}
