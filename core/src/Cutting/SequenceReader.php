<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Exchange\Exception\InvalidSequence;

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

    /** @return list<array{at_ticks: int, duration_ticks: int, name: string, note: string}> */
    public function markers(): array
    {
        return array_map(
            static fn(self $marker): array => [
                'at_ticks' => $marker->whole('at_ticks'),
                'duration_ticks' => $marker->whole('duration_ticks', 0),
                'name' => $marker->text('name', ''),
                'note' => $marker->text('note', ''),
            ],
            $this->list('markers'),
        );
    }
}
