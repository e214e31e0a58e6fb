<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

/** Walks a folder without following links, in byte order of the names, so that two walks of one folder agree. */
final class FolderWalk
{
    public const HISTORY = 'ascmhl';

    /**
     * @return \Generator<string, array{type: 'file'|'folder'|'link'|'special'|'unreadable', size: int, mtime: int}> by relative path,
     *                                                                                                              a folder before what is in it; the manifest history at the top is left out
     */
    public static function of(string $root, string $below = ''): \Generator
    {
        clearstatcache();
        $names = @scandir($root.($below === '' ? '' : '/'.$below), SCANDIR_SORT_NONE);
        if ($names === false) {
            yield ($below === '' ? '.' : $below) => ['type' => 'unreadable', 'size' => 0, 'mtime' => 0];

            return;
        }
        sort($names, SORT_STRING);
        foreach ($names as $name) {
            $name = (string) $name;
            if ($name === '.' || $name === '..' || ($below === '' && $name === self::HISTORY)) {
                continue;
            }
            $path = $below === '' ? $name : $below.'/'.$name;
            $stat = @lstat($root.'/'.$path);
            $type = match ($stat === false ? 0 : $stat['mode'] & 0170000) {
                0100000 => 'file',
                0040000 => 'folder',
                0120000 => 'link',
                0 => 'unreadable',
                default => 'special',
            };
            yield $path => ['type' => $type, 'size' => $stat === false ? 0 : $stat['size'], 'mtime' => $stat === false ? 0 : $stat['mtime']];
            if ($type === 'folder') {
                yield from self::of($root, $path);
            }
        }
    }
}
