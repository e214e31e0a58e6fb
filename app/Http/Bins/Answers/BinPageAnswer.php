<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** A page of what lies in a bin, in slate order. */
final readonly class BinPageAnswer
{
    /** @param  list<BinRowAnswer>  $rows */
    public function __construct(public int $total, public int $from, public array $rows) {}

    /** @param  array{total: int, from: int, rows: list<array<string, mixed>>}  $page */
    public static function of(array $page): self
    {
        return new self($page['total'], $page['from'], array_map(BinRowAnswer::of(...), $page['rows']));
    }
}
