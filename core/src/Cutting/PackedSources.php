<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;
use Cartella\Core\Time\FrameRate;

/**
 * The sources of a cut as {@see Packed} keeps them, each made once, when the first item of it is looked at.
 *
 * @internal
 */
final class PackedSources
{
    /** @var array<int, Source> */
    private array $made = [];

    /** @var array<string, FrameRate> by its label */
    private array $rates = [];

    /**
     * @param  array<mixed>  $list  of {@see Source::toArray}
     *
     * @throws InvalidSequence if one of them is none
     */
    public function __construct(private readonly array $list)
    {
        foreach ($list as $one) {
            if (!is_array($one) || !is_string($one['id'] ?? null) || !is_int($one['duration_ticks'] ?? null)) {
                throw InvalidSequence::field('sequence', 'has a source that is none');
            }
        }
    }

    public function has(int $number): bool
    {
        return isset($this->list[$number]);
    }

    /** @return array<string, mixed> as it is written */
    public function written(int $number): array
    {
        return $this->list[$number];
    }

    /** @return array<int, string> of all, by their numbers */
    public function ids(): array
    {
        return array_column($this->list, 'id');
    }

    public function get(int $number): Source
    {
        $one = $this->list[$number];
        $rate = $one['rate'] ?? null;

        return $this->made[$number] ??= new Source(
            $one['id'],
            (string) ($one['name'] ?? ''),
            $one['path'] ?? null,
            $one['reel'] ?? null,
            (int) ($one['start_ticks'] ?? 0),
            $one['duration_ticks'],
            $rate === null ? null : ($this->rates[$rate] ??= FrameRate::parse($rate)),
        );
    }
}
