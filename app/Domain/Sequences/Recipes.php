<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Models\SequenceKind;
use App\Models\StoredSequence;

/** How sequences that are made by a recipe are made again; said by the domains that make them. */
final class Recipes
{
    /** @var array<string, callable(StoredSequence): (string|null)> by kind */
    private array $cooks = [];

    /** @param  callable(StoredSequence): (string|null)  $again  says what changed, null for nothing */
    public function register(SequenceKind $kind, callable $again): void
    {
        $this->cooks[$kind->value] = $again;
    }

    /** Brings a sequence up to date with what it was made of; null when nothing changed, or nobody made it by a recipe. */
    public function again(StoredSequence $stored): ?string
    {
        $cook = $this->cooks[$stored->kind->value] ?? null;

        return $cook === null ? null : $cook($stored);
    }
}
