<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

/** What a file's name says of it: media by its extension, or the rubbish that cameras and computers leave on cards. */
final class MediaNames
{
    private const KINDS = [
        'picture' => ['mov', 'mp4', 'mxf', 'm4v', 'avi', 'mkv', 'mts', 'm2ts', 'webm'],
        'sound' => ['wav', 'bwf', 'rf64', 'aif', 'aiff', 'flac', 'mp3', 'm4a', 'ogg'],
        'still' => ['png', 'jpg', 'jpeg', 'tif', 'tiff', 'dpx', 'exr', 'webp', 'gif', 'bmp'],
    ];

    /** @return 'picture'|'sound'|'still'|null null for what is not media */
    public static function kindOf(string $path): ?string
    {
        $extension = strtolower(pathinfo($path, PATHINFO_EXTENSION));
        foreach (self::KINDS as $kind => $extensions) {
            if (in_array($extension, $extensions, true)) {
                return $kind;
            }
        }

        return null;
    }

    /** The kinds of what is brought in beside the cards, each with a bin of its own. */
    public const IMPORTS = ['production sound', 'effects', 'music', 'graphics', 'stills', 'extra shots', 'stock'];

    /** Other words for them that folders are named with. */
    private const FOLDERS = [
        'sound' => 'production sound',
        'location sound' => 'production sound',
        'effect' => 'effects',
        'sound effects' => 'effects',
        'sfx' => 'effects',
        'fx' => 'effects',
        'score' => 'music',
        'songs' => 'music',
        'graphic' => 'graphics',
        'titles' => 'graphics',
        'photos' => 'stills',
        'still' => 'stills',
        'extra' => 'extra shots',
        'extras' => 'extra shots',
        'second unit' => 'extra shots',
        'archive' => 'stock',
        'library' => 'stock',
    ];

    /**
     * What a file is that came in without a device: by the folder nearest to it that says so, else by its kind.
     *
     * @return string one of {@see self::IMPORTS}
     */
    public static function importKind(string $path): string
    {
        return self::namedKind($path) ??
            match (self::kindOf($path)) {
                'sound' => 'effects',
                'still' => 'stills',
                default => 'stock',
            };
    }

    /** The kind that the nearest folder says; null when no folder says one. */
    public static function namedKind(string $path): ?string
    {
        foreach (array_reverse(array_slice(explode('/', strtolower($path)), 0, -1)) as $folder) {
            $folder = trim(strtr($folder, '_-', '  '));
            $kind = self::FOLDERS[$folder] ?? $folder;
            if (in_array($kind, self::IMPORTS, true)) {
                return $kind;
            }
        }

        return null;
    }

    /** Picture or sound, as far as its name says. */
    public static function isClip(string $path): bool
    {
        return !self::isJunk($path) && in_array(self::kindOf($path), ['picture', 'sound'], true);
    }

    public static function isJunk(string $path): bool
    {
        $name = basename($path);

        return str_starts_with($name, '._') || $name === '.DS_Store' || str_starts_with($name, '.');
    }
}
