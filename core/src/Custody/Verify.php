<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

use Cartella\Core\Custody\Exception\UnableToVerify;

/** Compares a folder with its manifests: missing, altered, new and renamed files, and manifests that the chain disowns. */
final class Verify
{
    /**
     * @param  bool  $record  adds a generation with what was found
     * @param  (callable(string $path, int $done, int $total): void)|null  $progress
     * @return array{ok: bool, missing: list<string>, altered: list<string>, new: list<string>, renamed: list<array{from: string, to: string}>, problems: list<string>}
     *
     * @throws UnableToVerify if there is no folder, no manifest, or one that is not XML
     */
    public static function folder(string $folder, bool $record = false, ?callable $progress = null, ?int $now = null): array
    {
        $root = realpath($folder);
        if ($root === false || ! is_dir($root)) {
            throw UnableToVerify::noFolder($folder);
        }
        $problems = [];
        $known = self::known($root, $problems);
        $missing = $altered = $new = $checked = [];
        $there = [];
        foreach (FolderWalk::of($root) as $path => $facts) {
            if ($facts['type'] !== 'folder') {
                $there[(string) $path] = $facts;
            }
        }
        $done = 0;
        foreach ($known as $path => $entry) {
            $path = (string) $path;
            if (! isset($there[$path])) {
                $missing[] = $path;
            } else {
                $hash = $there[$path]['type'] === 'file' ? (string) @hash_file($entry->algorithm->value, $root.'/'.$path) : '';
                if ($hash !== $entry->hash) {
                    $altered[] = $path;
                }
                $checked[$path] = [$entry->algorithm, $hash, $hash === $entry->hash ? 'verified' : 'failed'];
            }
            if ($progress !== null) {
                $progress($path, ++$done, count($known));
            }
        }
        foreach ($there as $path => $facts) {
            if (! isset($known[$path]) && ! self::isIgnored((string) $path)) {
                $new[] = (string) $path;
            }
        }
        $renamed = self::renamed($root, $known, $missing, $new);
        if ($record) {
            self::record($root, $known, $checked, $new, $renamed, $there, $now ?? time());
        }

        return [
            'ok' => $missing === [] && $altered === [] && $new === [] && $renamed === [] && $problems === [],
            'missing' => $missing,
            'altered' => $altered,
            'new' => $new,
            'renamed' => $renamed,
            'problems' => $problems,
        ];
    }

    /**
     * The last trusted checksum of every path over all generations.
     *
     * @param  list<string>  $problems
     * @return array<string, ManifestEntry>
     */
    private static function known(string $root, array &$problems): array
    {
        $history = $root.'/'.FolderWalk::HISTORY;
        $chain = Manifest::chain($root);
        $files = glob($history.'/[0-9][0-9][0-9][0-9]_*.mhl') ?: [];
        if ($chain === [] && $files === []) {
            throw UnableToVerify::noManifest($root);
        }
        $owned = array_column($chain, 'c4', 'path');
        foreach ($chain as $generation) {
            $file = $history.'/'.$generation['path'];
            if (basename($generation['path']) !== $generation['path'] || ! is_file($file)) {
                $problems[] = sprintf('The chain names %s, which is not there.', UnableToVerify::quote($generation['path']));
            } elseif (C4::ofFile($file) !== $generation['c4']) {
                $problems[] = sprintf('%s is not the manifest that the chain knows.', UnableToVerify::quote($generation['path']));
            }
        }
        $known = [];
        foreach ($files as $file) {
            if (! isset($owned[basename($file)])) {
                $problems[] = sprintf('%s is not in the chain.', UnableToVerify::quote(basename($file)));
            }
            foreach (Manifest::read($file) as $entry) {
                if (self::climbs($entry->path)) {
                    $problems[] = sprintf('%s names a path outside the folder: %s.', UnableToVerify::quote(basename($file)), UnableToVerify::quote($entry->path));
                } elseif ($entry->action !== 'failed') {
                    $known[$entry->path] = $entry;
                }
            }
        }

        return $known;
    }

    private static function climbs(string $path): bool
    {
        return $path === '' || $path[0] === '/' || in_array('..', explode('/', $path), true);
    }

    private static function isIgnored(string $path): bool
    {
        foreach (explode('/', $path) as $part) {
            foreach (Manifest::IGNORED as $pattern) {
                if ($pattern !== 'ascmhl' && fnmatch($pattern, $part)) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * A missing and a new file of the same content are one that was renamed.
     *
     * @param  array<string, ManifestEntry>  $known
     * @param  array<int, string>  $missing
     * @param  array<int, string>  $new
     * @return list<array{from: string, to: string}>
     */
    private static function renamed(string $root, array $known, array &$missing, array &$new): array
    {
        $renamed = [];
        foreach ($missing as $m => $from) {
            foreach ($new as $n => $to) {
                $file = $root.'/'.$to;
                if (! is_link($file) && is_file($file) && filesize($file) === $known[$from]->sizeBytes
                    && hash_file($known[$from]->algorithm->value, $file) === $known[$from]->hash) {
                    $renamed[] = ['from' => $from, 'to' => $to];
                    unset($missing[$m], $new[$n]);
                    break;
                }
            }
        }
        $missing = array_values($missing);
        $new = array_values($new);

        return $renamed;
    }

    /**
     * @param  array<string, ManifestEntry>  $known
     * @param  array<string, array{HashAlgorithm, string, 'verified'|'failed'}>  $checked
     * @param  list<string>  $new
     * @param  list<array{from: string, to: string}>  $renamed
     * @param  array<string, array{type: string, size: int, mtime: int}>  $there
     */
    private static function record(string $root, array $known, array $checked, array $new, array $renamed, array $there, int $now): void
    {
        $algorithm = $known === [] ? HashAlgorithm::Xxh128 : reset($known)->algorithm;
        $entries = [];
        foreach ($checked as $path => [$used, $hash, $action]) {
            $entries[] = new ManifestEntry((string) $path, $there[$path]['size'], $there[$path]['mtime'], $used, $hash, $action, $now);
        }
        foreach ([...$new, ...array_column($renamed, 'to')] as $path) {
            if ($there[$path]['type'] === 'file' && Manifest::canName($path)) {
                $entries[] = new ManifestEntry($path, $there[$path]['size'], $there[$path]['mtime'], $algorithm, (string) hash_file($algorithm->value, $root.'/'.$path), 'original', $now);
            }
        }
        Manifest::write($root, $entries, 'in-place', $algorithm, $now);
    }
}
