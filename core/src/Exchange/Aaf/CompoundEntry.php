<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Aaf;

/** A storage or a stream of a compound file; a storage has entries, a stream has bytes. */
final class CompoundEntry
{
    /** @var array<string, self> by name */
    public array $entries = [];

    /**
     * @param  string  $class  16 bytes that say what a storage holds
     * @param  string|null  $bytes  null for a storage
     */
    public function __construct(public readonly string $name, public readonly string $class = '', public readonly ?string $bytes = null) {}

    public function put(self $entry): self
    {
        return $this->entries[$entry->name] = $entry;
    }

    public function stream(string $name): ?string
    {
        return ($this->entries[$name] ?? null)?->bytes;
    }
}
