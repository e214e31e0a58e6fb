<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

use Cartella\Core\Custody\Exception\UnableToVerify;
use Cartella\Core\Custody\Internal\MediumHash;

/**
 * A look at one copy before its card may be wiped: every manifest read and held to its chain, every file there with its
 * size, and a sample of files read from the medium itself against their checksums.
 */
final readonly class CopyLook
{
    /** Of the sample, bytes altogether; at least one file is read whatever its size. */
    private const SAMPLE_BYTES = 2 << 30;

    private const SAMPLE_FILES = 8;

    private const WRONG_LIMIT = 50;

    /**
     * @param  int  $manifests  generations that were read
     * @param  string  $newest  name of the newest
     * @param  string  $c4  its identifier
     * @param  int  $files  that are there with their size
     * @param  int  $bytes  of them
     * @param  list<array{path: string, reason: string}>  $wrong  the first ones
     * @param  list<array{path: string, algorithm: string, bytes: int, from: 'medium'|'cache'}>  $sample  read and found equal
     */
    private function __construct(
        public int $manifests,
        public string $newest,
        public string $c4,
        public int $files,
        public int $bytes,
        public array $wrong,
        public array $sample,
    ) {}

    /**
     * @param  array<string, int>  $expected  bytes by path, of what has to be there
     * @param  (callable(string $path): void)|null  $progress
     * @param  (callable(list<string>): list<string>)|null  $shuffle  the order in which files are chosen; at random by itself
     *
     * @throws UnableToVerify if there is no folder, no history, or a manifest that cannot be read
     */
    public static function at(string $folder, array $expected, ?callable $progress = null, ?callable $shuffle = null): self
    {
        $chain = Manifest::chain($folder);
        if ($chain === []) {
            throw is_dir($folder) ? UnableToVerify::noManifest($folder) : UnableToVerify::noFolder($folder);
        }
        $wrong = [];
        $known = [];
        foreach ($chain as $generation) {
            $file = $folder . '/' . FolderWalk::HISTORY . '/' . $generation['path'];
            if (basename($generation['path']) !== $generation['path'] || !is_file($file)) {
                throw UnableToVerify::manifest($generation['path'], 'the chain names it, and it is not there');
            }
            if (C4::ofFile($file) !== $generation['c4']) {
                throw UnableToVerify::manifest($generation['path'], 'it is not the one that the chain knows');
            }
            foreach (Manifest::read($file) as $entry) {
                if ($entry->action !== 'failed') {
                    $known[$entry->path] = $entry;
                }
            }
        }
        $files = $bytes = 0;
        $there = [];
        foreach ($expected as $path => $size) {
            $path = (string) $path;
            $reason = self::reason($folder . '/' . $path, $size, $known[$path] ?? null);
            if ($reason !== null) {
                $wrong[] = ['path' => $path, 'reason' => $reason];

                continue;
            }
            $files++;
            $bytes += $size;
            $there[] = $path;
        }
        $sample = self::sample($folder, $there, $known, $wrong, $progress, $shuffle);
        $last = $chain[count($chain) - 1];

        return new self(count($chain), $last['path'], $last['c4'], $files, $bytes, array_slice($wrong, 0, self::WRONG_LIMIT), $sample);
    }

    private static function reason(string $file, int $size, ?ManifestEntry $entry): ?string
    {
        clearstatcache(true, $file);
        $stat = @lstat($file);

        return match (true) {
            $entry === null => 'No manifest names it.',
            $stat === false => 'It is not there.',
            ($stat['mode'] & 0170000) !== 0100000 => 'It is not a file any more.',
            $stat['size'] !== $size => sprintf('It has %d bytes instead of %d.', $stat['size'], $size),
            default => null,
        };
    }

    /**
     * @param  list<string>  $paths
     * @param  array<string, ManifestEntry>  $known
     * @param  list<array{path: string, reason: string}>  $wrong
     * @param-out list<array{path: string, reason: string}>  $wrong
     * @return list<array{path: string, algorithm: string, bytes: int, from: 'medium'|'cache'}>
     */
    private static function sample(
        string $folder,
        array $paths,
        array $known,
        array &$wrong,
        ?callable $progress,
        ?callable $shuffle,
    ): array {
        if ($shuffle === null) {
            shuffle($paths);
        } else {
            $paths = $shuffle($paths);
        }
        $chosen = [];
        $left = self::SAMPLE_BYTES;
        foreach ($paths as $path) {
            if (count($chosen) < self::SAMPLE_FILES && $known[$path]->sizeBytes <= $left) {
                $chosen[] = $path;
                $left -= $known[$path]->sizeBytes;
            }
        }
        if ($chosen === [] && $paths !== []) {
            usort($paths, static fn(string $x, string $y): int => $known[$x]->sizeBytes <=> $known[$y]->sizeBytes);
            $chosen = [$paths[0]];
        }
        $sample = [];
        /** @var string $path */
        foreach ($chosen as $path) {
            $entry = $known[$path];
            if ($progress !== null) {
                $progress($path);
            }
            [$hash, $from] =
                $entry->algorithm === HashAlgorithm::C4
                    ? [$entry->algorithm->ofFile($folder . '/' . $path), 'cache']
                    : MediumHash::of($folder . '/' . $path, $entry->algorithm->value);
            if ($hash === $entry->hash) {
                $sample[] = ['path' => $path, 'algorithm' => $entry->algorithm->value, 'bytes' => $entry->sizeBytes, 'from' => $from];
            } else {
                $wrong[] = ['path' => $path, 'reason' => 'What the medium holds is not what was copied.'];
            }
        }

        return $sample;
    }
}
