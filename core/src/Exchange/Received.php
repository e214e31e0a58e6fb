<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange;

use Cartella\Core\Cutting\Sequence;

/** A cut as a list of somebody else told it, and what of the list could not be read. */
final readonly class Received
{
    /**
     * @param  list<ListProblem>  $problems  in the order of the list
     * @param  array<int, array<int, string>>  $places  by track and item: where the list says it, such as `event 003, line 12`
     */
    public function __construct(public Sequence $sequence, public array $problems = [], public array $places = []) {}

    /** @return array<string, mixed> the sequence's JSON with `problems` */
    public function toArray(): array
    {
        return $this->sequence->toArray() + [
            'problems' => array_map(static fn(ListProblem $one): array => $one->toArray(), $this->problems),
        ];
    }
}
