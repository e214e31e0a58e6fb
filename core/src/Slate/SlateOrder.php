<?php

declare(strict_types=1);

namespace Cartella\Core\Slate;

/** The order in which slates are shot and read: `3, 3A, 3B, 7, 12, 12A, A13, 13, 13A`. */
final class SlateOrder
{
    /** Sorts after every key of a readable slate. */
    public const LAST = '~';

    /**
     * Text to sort a take by, in its production's style: running numbers stand under their scenes, in the scenes' order.
     *
     * @param  string|null  $scene  asked only where numbers run
     */
    public static function of(SlateStyle $style, ?string $scene, ?string $setup, ?int $take = null, string $part = ''): string
    {
        if ($style === SlateStyle::Letter || preg_match('/\A\d{1,5}\z/', (string) $setup) !== 1) {
            return self::key($setup, $take, $part);
        }

        return self::key($scene) . sprintf('#%05d.%04d%s', $setup, min(9999, $take ?? 0), $part);
    }

    /** Text to sort by, byte by byte; `~` first for what is not a slate. */
    public static function key(?string $setup, ?int $take = null, string $part = ''): string
    {
        $parsed = $setup === null ? null : SetupName::parse($setup);

        return $parsed?->sortKey($take, $part) ?? self::LAST . $setup;
    }
}
