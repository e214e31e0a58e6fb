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

    /** Picture or sound, as far as its name says. */
    public static function isClip(string $path): bool
    {
        return ! self::isJunk($path) && in_array(self::kindOf($path), ['picture', 'sound'], true);
    }

    public static function isJunk(string $path): bool
    {
        $name = basename($path);

        return str_starts_with($name, '._') || $name === '.DS_Store' || str_starts_with($name, '.');
    }
}
