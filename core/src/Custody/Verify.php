<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

use Cartella\Core\Custody\Exception\UnableToVerify;

/**
 * Compares a folder with its manifests: missing, altered, new and renamed files, and manifests that the chain disowns.
 *
 * ASC MHL 2.0 with its history comes first; a folder that has none is compared with the MHL 1.1 lists beside its files.
 */
final class Verify
{
    /**
     * @param  bool  $record  adds a generation with what was found
     * @param  (callable(string $path, int $bytes, int $files): void)|null  $progress  bytes and files that were read again so far
     * @return array{ok: bool, missing: list<string>, altered: list<string>, new: list<string>, renamed: list<array{from: string,
     *     to: string}>, problems: list<string>}
     *
     * @throws UnableToVerify if there is no folder, no manifest, or one that is not XML
     */
    public static function folder(string $folder, bool $record = false, ?callable $progress = null, ?int $now = null): array
    {
        $root = realpath($folder);
        if ($root === false || !is_dir($root)) {
            throw UnableToVerify::noFolder($folder);
        }
        $problems = [];
        $ignore = Manifest::IGNORED;
        $known = self::known($root, $problems, $ignore);
        $missing = $altered = $new = $checked = [];
        $there = [];
        foreach (FolderWalk::of($root) as $path => $facts) {
            if ($facts['type'] !== 'folder') {
                $there[(string) $path] = $facts;
            }
        }
        $bytes = $files = 0;
        foreach ($known as $path => $entry) {
            $path = (string) $path;
            if (!isset($there[$path])) {
                $missing[] = $path;
            } else {
                $hash = $there[$path]['type'] === 'file' ? (string) $entry->algorithm->ofFile($root . '/' . $path) : '';
                if ($hash !== $entry->hash) {
                    $altered[] = $path;
                }
                $checked[$path] = [$entry->algorithm, $hash, $hash === $entry->hash ? 'verified' : 'failed'];
                $bytes += $entry->sizeBytes;
            }
            $files++;
            if ($progress !== null) {
                $progress($path, $bytes, $files);
            }
        }
        foreach ($there as $path => $facts) {
            if (!isset($known[$path]) && !self::isIgnored((string) $path, $ignore)) {
                $new[] = (string) $path;
            }
        }
        $renamed = self::renamed($root, $known, $missing, $new);
        self::compareLists($root, $checked, $problems);
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
     * Compares files that lie where no folder can be read, such as in a bucket, with their manifests. What was renamed is told as missing
     * and new; of what is there nothing is written.
     *
     * @param  string  $history  folder in which the manifests lie, fetched from there
     * @param  array<string, int>  $there  bytes by path, without the manifests
     * @param  callable(string $path, HashAlgorithm $algorithm): ?string  $hash  the checksum of what is read from there; null where that
     *     ends in its middle
     * @param  callable(string $path, int $bytes, int $files): void  $progress
     * @return array{ok: bool, missing: list<string>, altered: list<string>, new: list<string>, renamed: list<array{from: string,
     *     to: string}>, problems: list<string>}
     *
     * @throws UnableToVerify if there is no manifest, or one that is not XML
     */
    public static function elsewhere(string $history, array $there, callable $hash, callable $progress): array
    {
        $problems = $missing = $altered = $new = [];
        $ignore = Manifest::IGNORED;
        $known = self::known($history, $problems, $ignore);
        $bytes = $files = 0;
        foreach ($known as $path => $entry) {
            $path = (string) $path;
            if (!isset($there[$path])) {
                $missing[] = $path;
            } elseif ($there[$path] !== $entry->sizeBytes || $hash($path, $entry->algorithm) !== $entry->hash) {
                $altered[] = $path;
            }
            $bytes += $entry->sizeBytes;
            $progress($path, $bytes, ++$files);
        }
        foreach (array_keys($there) as $path) {
            if (!isset($known[$path]) && !self::isIgnored((string) $path, $ignore)) {
                $new[] = (string) $path;
            }
        }

        return [
            'ok' => $missing === [] && $altered === [] && $new === [] && $problems === [],
            'missing' => $missing,
            'altered' => $altered,
            'new' => $new,
            'renamed' => [],
            'problems' => $problems,
        ];
    }

    /**
     * The last trusted checksum of every path over all generations.
     *
     * @param  list<string>  $problems
     * @param  list<string>  $ignore  gets the patterns that the generations name
     * @return array<string, ManifestEntry>
     */
    private static function known(string $root, array &$problems, array &$ignore): array
    {
        $history = $root . '/' . FolderWalk::HISTORY;
        $chain = Manifest::chain($root);
        $files = array_map(
            static fn(string $name): string => $history . '/' . $name,
            array_values(preg_grep('/\A\d{4}_.*\.mhl\z/s', @scandir($history) ?: []) ?: []),
        );
        if ($chain === [] && $files === []) {
            return self::legacy($root, $problems, $ignore);
        }
        $owned = array_column($chain, 'c4', 'path');
        foreach ($chain as $generation) {
            $file = $history . '/' . $generation['path'];
            if (basename($generation['path']) !== $generation['path'] || !is_file($file)) {
                $problems[] = sprintf('The chain names %s, which is not there.', UnableToVerify::quote($generation['path']));
            } elseif (C4::ofFile($file) !== $generation['c4']) {
                $problems[] = sprintf('%s is not the manifest that the chain knows.', UnableToVerify::quote($generation['path']));
            }
        }
        $known = [];
        foreach ($files as $file) {
            if (!isset($owned[basename($file)])) {
                $problems[] = sprintf('%s is not in the chain.', UnableToVerify::quote(basename($file)));
            }
            $ignore = [...$ignore, ...array_diff(Manifest::about($file)['ignore'], $ignore)];
            self::take(Manifest::read($file), $file, $known, $problems);
        }

        return $known;
    }

    /**
     * Lists of others that came with the material are heard as well; what they say of files that are whole by our own
     * manifest is a problem of its own.
     *
     * @param  array<string, array{HashAlgorithm, string, 'verified'|'failed'}>  $checked
     * @param  list<string>  $problems
     */
    private static function compareLists(string $root, array $checked, array &$problems): void
    {
        foreach (LegacyManifest::in($root) as $name) {
            try {
                $entries = LegacyManifest::read($root . '/' . $name);
            } catch (UnableToVerify) {
                continue; // it is a file like any other, whatever it is
            }
            foreach ($entries as $entry) {
                [$algorithm, $hash, $action] = $checked[$entry->path] ?? [null, '', 'failed'];
                if ($action !== 'verified') {
                    continue;
                }
                $own = $algorithm === $entry->algorithm ? $hash : (string) $entry->algorithm->ofFile($root . '/' . $entry->path);
                if ($own !== $entry->hash) {
                    $problems[] = sprintf(
                        '%s, which came with the files, has another checksum for %s.',
                        UnableToVerify::quote($name),
                        UnableToVerify::quote($entry->path),
                    );
                }
            }
        }
    }

    /**
     * @param  list<string>  $problems
     * @param  list<string>  $ignore
     * @return array<string, ManifestEntry>
     */
    private static function legacy(string $root, array &$problems, array &$ignore): array
    {
        $lists = LegacyManifest::in($root);
        if ($lists === []) {
            throw UnableToVerify::noManifest($root);
        }
        $known = [];
        foreach ($lists as $name) {
            // The list does not list itself.
            $ignore[] = $name;
            self::take(LegacyManifest::read($root . '/' . $name), $name, $known, $problems);
        }

        return $known;
    }

    /**
     * @param  list<ManifestEntry>  $entries
     * @param  array<string, ManifestEntry>  $known
     * @param  list<string>  $problems
     */
    private static function take(array $entries, string $file, array &$known, array &$problems): void
    {
        foreach ($entries as $entry) {
            if (self::climbs($entry->path)) {
                $problems[] = sprintf(
                    '%s names a path outside the folder: %s.',
                    UnableToVerify::quote(basename($file)),
                    UnableToVerify::quote($entry->path),
                );
            } elseif ($entry->action !== 'failed') {
                $known[$entry->path] = $entry;
            }
        }
    }

    private static function climbs(string $path): bool
    {
        return $path === '' || $path[0] === '/' || in_array('..', explode('/', $path), true);
    }

    /** @param  list<string>  $patterns of names, or of whole paths where they hold a slash */
    private static function isIgnored(string $path, array $patterns): bool
    {
        foreach ($patterns as $pattern) {
            if (
                str_contains(rtrim($pattern, '/'), '/') &&
                (fnmatch(trim($pattern, '/'), $path) || str_starts_with($path, trim($pattern, '/') . '/'))
            ) {
                return true;
            }
        }
        foreach (explode('/', $path) as $part) {
            foreach ($patterns as $pattern) {
                if (fnmatch(rtrim($pattern, '/'), $part)) {
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
        $bySize = [];
        foreach ($new as $n => $to) {
            if (!is_link($root . '/' . $to) && is_file($root . '/' . $to)) {
                $bySize[(int) filesize($root . '/' . $to)][$n] = $to;
            }
        }
        $renamed = $hashes = [];
        foreach ($missing as $m => $from) {
            $entry = $known[$from];
            foreach ($bySize[$entry->sizeBytes] ?? [] as $n => $to) {
                $hashes[$to][$entry->algorithm->value] ??= (string) $entry->algorithm->ofFile($root . '/' . $to);
                if ($hashes[$to][$entry->algorithm->value] === $entry->hash) {
                    $renamed[] = ['from' => $from, 'to' => $to];
                    unset($missing[$m], $new[$n], $bySize[$entry->sizeBytes][$n]);
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
        $algorithm = $algorithm->isWritten() ? $algorithm : HashAlgorithm::Xxh128;
        $entries = [];
        foreach ($checked as $path => [$used, $hash, $action]) {
            $entries[] = new ManifestEntry((string) $path, $there[$path]['size'], $there[$path]['mtime'], $used, $hash, $action, $now);
        }
        foreach ([...$new, ...array_column($renamed, 'to')] as $path) {
            if ($there[$path]['type'] === 'file' && Manifest::canName($path)) {
                $entries[] = new ManifestEntry(
                    $path,
                    $there[$path]['size'],
                    $there[$path]['mtime'],
                    $algorithm,
                    (string) $algorithm->ofFile($root . '/' . $path),
                    'original',
                    $now,
                );
            }
        }
        Manifest::write($root, $entries, 'in-place', $algorithm, $now);
    }
}
