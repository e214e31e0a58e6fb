<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** A page of what lies in a bin. */
final readonly class BinPageAnswer
{
    /**
     * @param  int|null  $ticks  how long all of it is together; null of very much, which is asked for apart
     * @param  list<BinRowAnswer>  $rows
     * @param  array<mixed>|null  $rule  by which the bin fills itself, as JSON; null for every other bin
     * @param  string|null  $sentence  the rule in words
     */
    public function __construct(
        public int $total,
        public ?int $ticks,
        public int $from,
        public array $rows,
        public ?array $rule,
        public ?string $sentence,
    ) {}

    /**
     * @param  array{total: int, ticks: int|null, from: int, rows: list<array<string, mixed>>}  $page
     * @param  array<mixed>|null  $rule
     */
    public static function of(array $page, ?array $rule = null, ?string $sentence = null): self
    {
        return new self($page['total'], $page['ticks'], $page['from'], array_map(BinRowAnswer::of(...), $page['rows']), $rule, $sentence);
    }
}
