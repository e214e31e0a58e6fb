<?php

declare(strict_types=1);

namespace App\Support;

/** The folders of this desk, and the one place that asks its settings for them. Absolute paths without a slash at the end. */
final class Folders
{
    /** Everything made at run time. */
    public static function var(string $below = ''): string
    {
        return self::of('var', $below);
    }

    /** Where cards appear. */
    public static function readers(string $below = ''): string
    {
        return self::of('bench', $below);
    }

    /** Files that are being dropped on a page, until they are whole. */
    public static function uploads(string $below = ''): string
    {
        return self::of('uploads', $below);
    }

    /** The editing team's shared drive. */
    public static function inbox(string $below = ''): string
    {
        return self::of('inbox', $below);
    }

    /** Proxies, pictures, peaks and guide sound; what lies there by name knows {@see \App\Domain\Footage\MediaFolder}. */
    public static function media(string $below = ''): string
    {
        return self::of('proxies', $below);
    }

    /** Work in progress of media that lie elsewhere. */
    public static function scratch(string $below = ''): string
    {
        return self::of('scratch', $below);
    }

    public static function logs(string $below = ''): string
    {
        return self::of('logs', $below);
    }

    /** Where the database keeps its files. */
    public static function database(): string
    {
        return self::of('database', '');
    }

    /** The simulated cards that can be inserted. */
    public static function cardLibrary(): string
    {
        return self::of('card_library', '');
    }

    private static function of(string $setting, string $below): string
    {
        $root = rtrim((string) config('cartella.' . $setting), '/');

        return $below === '' ? $root : $root . '/' . $below;
    }
}
