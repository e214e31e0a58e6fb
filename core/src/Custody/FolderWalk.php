<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

/** Walks a folder without following links, in byte order of the names, so that two walks of one folder agree. */
final class FolderWalk
{
    public const HISTORY = 'ascmhl';

    /** What belongs to a history inside its folder: generations, the chain, and what an offload keeps there while it runs. */
    private const OF_HISTORY = '/\A(\d{4}.*\.mhl|ascmhl_chain\.xml|\.offload.*)(\.part)?\z/s';

    /**
     * @return \Generator<string, array{type: 'file'|'folder'|'link'|'special'|'unreadable', size: int, mtime: int}> by relative path,
     *                                                                                                              a folder before what is
     *                                                                                                              in it; the manifests of
     *                                                                                                              the history at the top
     *                                                                                                              are left out, and so is
     *                                                                                                              its folder when it holds
     *                                                                                                              nothing else
     */
    public static function of(string $root, string $below = ''): \Generator
    {
        clearstatcache();
        $names = @scandir($root . ($below === '' ? '' : '/' . $below), SCANDIR_SORT_NONE);
        if ($names === false) {
            yield $below === '' ? '.' : $below => ['type' => 'unreadable', 'size' => 0, 'mtime' => 0];

            return;
        }
        sort($names, SORT_STRING);
        foreach ($names as $name) {
            $name = (string) $name;
            if ($name === '.' || $name === '..' || ($below === self::HISTORY && self::isOfHistory($name))) {
                continue;
            }
            if ($below === '' && $name === self::HISTORY && self::holdsOnlyHistory($root)) {
                continue;
            }
            $path = $below === '' ? $name : $below . '/' . $name;
            $stat = @lstat($root . '/' . $path);
            $type = match ($stat === false ? 0 : $stat['mode'] & 0170000) {
                0100000 => 'file',
                0040000 => 'folder',
                0120000 => 'link',
                0 => 'unreadable',
                default => 'special',
            };
            yield $path => [
                'type' => $type,
                'size' => $stat === false ? 0 : $stat['size'],
                'mtime' => $stat === false ? 0 : $stat['mtime'],
            ];
            if ($type === 'folder') {
                yield from self::of($root, $path);
            }
        }
    }

    /** Whether a name directly in a history's folder is the history's own. */
    public static function isOfHistory(string $name): bool
    {
        return preg_match(self::OF_HISTORY, $name) === 1;
    }

    /** A folder of that name is no history while it holds other things as well: those are walked like all others. */
    private static function holdsOnlyHistory(string $root): bool
    {
        if (is_link($root . '/' . self::HISTORY)) {
            return false;
        }
        foreach (@scandir($root . '/' . self::HISTORY) ?: [] as $name) {
            if ($name !== '.' && $name !== '..' && !self::isOfHistory($name)) {
                return false;
            }
        }

        return is_dir($root . '/' . self::HISTORY);
    }
}
