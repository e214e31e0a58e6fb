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

    /** @var array<int, array<string, mixed>> as they were written, of those that were asked for */
    private array $read = [];

    /** @param  array<mixed>  $list  JSON of {@see Source::toArray} each, or what that gives, as cuts were kept before */
    public function __construct(private readonly array $list) {}

    /** @return array<mixed> as they were read */
    public function list(): array
    {
        return $this->list;
    }

    public function has(int $number): bool
    {
        return isset($this->list[$number]);
    }

    /**
     * @return array<string, mixed> as it is written
     *
     * @throws InvalidSequence if it is none
     */
    public function written(int $number): array
    {
        if (isset($this->read[$number])) {
            return $this->read[$number];
        }
        $one = $this->list[$number] ?? null;
        $one = is_string($one) ? json_decode($one, true) : $one;
        if (!is_array($one) || !is_string($one['id'] ?? null) || !is_int($one['duration_ticks'] ?? null)) {
            throw InvalidSequence::field('sequence', 'has a source that is none');
        }

        return $this->read[$number] = $one;
    }

    public function get(int $number): Source
    {
        $one = $this->written($number);
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
