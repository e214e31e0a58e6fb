<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

/**
 * A list of files that somebody wants to bring in, as a browser or a program says it: which of them may come, and where below the
 * import's own folder each would lie. Nothing of it is believed: paths are untrusted text.
 */
final readonly class ImportList
{
    /** Files of one import. */
    public const MOST = 20_000;

    /** Bytes of a part of a path that every file system takes, and of a whole path. */
    private const PART = 255;

    private const PATH = 900;

    /** Bytes of one file: 4 TB. */
    private const SIZE = 4_000_000_000_000;

    /**
     * @param  array<int, array{path: string, size_bytes: int}>  $files  that come in, by their place in the list that was given
     * @param  array<int, array{path: string, reason: string}>  $refused  by the same places, each with a sentence
     * @param  int  $passed  what computers leave in folders, which nobody wants to have
     */
    private function __construct(public array $files, public array $refused, public int $passed) {}

    /** @param  list<array{path: string, size_bytes: int}>  $files  paths with slashes, sizes in bytes */
    public static function of(array $files): self
    {
        $kept = $refused = $taken = $folders = [];
        $passed = 0;
        foreach ($files as $number => ['path' => $path, 'size_bytes' => $bytes]) {
            $path = ltrim($path, '/');
            if (mb_check_encoding($path, 'UTF-8') && MediaNames::isJunk($path)) {
                $passed++;

                continue;
            }
            $own = self::above(mb_strtolower($path));
            $reason = self::fault($path, $bytes) ?? self::clash(mb_strtolower($path), $own, $taken, $folders);
            if ($reason !== null) {
                $refused[$number] = ['path' => mb_substr(mb_scrub($path), -200), 'reason' => $reason];

                continue;
            }
            // A volume may take names of both cases for one.
            $taken[mb_strtolower($path)] = true;
            $folders += array_fill_keys($own, true);
            $kept[$number] = ['path' => $path, 'size_bytes' => $bytes];
        }

        return new self($kept, $refused, $passed);
    }

    /** @return list<string> the folders above a path */
    private static function above(string $path): array
    {
        $folders = [];
        for ($folder = dirname($path); $folder !== '.' && $folder !== '/' && $folder !== ''; $folder = dirname($folder)) {
            $folders[] = $folder;
        }

        return $folders;
    }

    /**
     * @param  list<string>  $own  folders above the path
     * @param  array<string, true>  $taken  paths of files that come in
     * @param  array<string, true>  $folders  that they lie in
     */
    private static function clash(string $path, array $own, array $taken, array $folders): ?string
    {
        return match (true) {
            isset($taken[$path]) => 'Two files of the import have this name.',
            isset($folders[$path]),
            array_intersect_key($taken, array_flip($own)) !== []
                => 'A file and a folder of the import have one name.',
            default => null,
        };
    }

    private static function fault(string $path, int $bytes): ?string
    {
        if (!mb_check_encoding($path, 'UTF-8') || preg_match('/[\x00-\x1f\x7f\\\\]/', $path) === 1 || strlen($path) > self::PATH) {
            return 'Its name cannot be kept on every volume.';
        }
        foreach (explode('/', $path) as $part) {
            if ($part === '' || $part === '.' || $part === '..' || strlen($part) > self::PART || trim($part) !== $part) {
                return 'Its name cannot be kept on every volume.';
            }
        }

        return match (true) {
            MediaNames::kindOf($path) === null => 'It is no picture, sound or still that is read here.',
            $bytes <= 0 => 'It is empty.',
            $bytes > self::SIZE => 'It is larger than 4 TB.',
            default => null,
        };
    }
}
