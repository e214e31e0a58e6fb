<?php

declare(strict_types=1);

namespace Cartella\Core\Rules;

/** Conditions and groups that hold together: all of them, any, or none. */
final readonly class Group
{
    /** @param  list<Condition|Group>  $parts */
    public function __construct(public Joining $joining, public array $parts) {}

    /** @param  callable(string): array{SubjectType, list<string|int|float|bool>}  $facts  by the subject's key */
    public function matches(callable $facts): bool
    {
        $hold = 0;
        foreach ($this->parts as $part) {
            $hold += (int) ($part instanceof self ? $part->matches($facts) : $part->matches(...$facts($part->about)));
        }

        return match ($this->joining) {
            Joining::All => $hold === count($this->parts),
            Joining::Any => $hold > 0 || $this->parts === [],
            Joining::None => $hold === 0,
        };
    }
}
