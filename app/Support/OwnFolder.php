<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Support\Facades\File;

/**
 * Folders that the desk made itself, told by a marker file in each. Only such a folder is ever emptied or removed: where
 * a setting names a volume of somebody's, nothing of it may go.
 */
final class OwnFolder
{
    public const MARKER = '.cartella-made';

    /**
     * Makes a folder and marks it; one that is there and holds nothing is taken for ours.
     *
     * @throws Problem if it holds something that we did not put there
     */
    public static function make(string $path): void
    {
        if (self::isOurs($path)) {
            return;
        }
        if (is_link($path) || (file_exists($path) && !is_dir($path)) || array_diff(@scandir($path) ?: [], ['.', '..']) !== []) {
            throw self::notOurs($path);
        }
        File::ensureDirectoryExists($path);
        file_put_contents($path . '/' . self::MARKER, "Made by Cartella, which may empty it.\n");
    }

    public static function isOurs(string $path): bool
    {
        return !is_link($path) && is_file($path . '/' . self::MARKER) && !is_link($path . '/' . self::MARKER);
    }

    /**
     * Takes everything out of a folder of ours but its marker.
     *
     * @throws Problem if it is not ours, or something in it stays
     */
    public static function clear(string $path): void
    {
        if (!self::isOurs($path)) {
            throw self::notOurs($path);
        }
        foreach (array_diff(scandir($path) ?: [], ['.', '..', self::MARKER]) as $name) {
            $entry = $path . '/' . $name;
            $isGone = is_dir($entry) && !is_link($entry) ? File::deleteDirectory($entry) : @unlink($entry);
            if (!$isGone || file_exists($entry)) {
                throw Problem::refused(
                    'folder.kept',
                    "$entry cannot be removed.",
                    'Take it away by hand: it may be another account’s, or in use.',
                );
            }
        }
    }

    /** @throws Problem if it is there and is not ours */
    public static function remove(string $path): void
    {
        if (file_exists($path) || is_link($path)) {
            self::clear($path);
            unlink($path . '/' . self::MARKER);
            rmdir($path);
        }
    }

    public static function notOurs(string $path): Problem
    {
        return Problem::refused(
            'folder.foreign',
            "$path holds files that Cartella did not put there, so it was left as it is.",
            'Choose an empty folder, or move those files away.',
        );
    }
}
