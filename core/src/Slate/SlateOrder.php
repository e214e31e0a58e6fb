<?php

declare(strict_types=1);

namespace Cartella\Core\Slate;

/** The order in which slates are shot and read: `3, 3A, 3B, 7, 12, 12A, A13, 13, 13A`. */
final class SlateOrder
{
    /** Sorts after every key of a readable slate. */
    public const LAST = '~';

    /** Text to sort by, byte by byte; `~` first for what is not a slate. */
    public static function key(?string $setup, ?int $take = null, string $part = ''): string
    {
        $parsed = $setup === null ? null : SetupName::parse($setup);

        return $parsed?->sortKey($take, $part) ?? self::LAST.$setup;
    }
}
