<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

use Cartella\Core\Custody\Exception\UnableToVerify;

/**
 * What a card says of its own files: the ASC MHL histories and MHL 1.1 lists that lie on it, at any depth, and of every
 * path the newest checksum among them.
 *
 * Paths are relative to the card. A list that cannot be read claims nothing, and is a file like any other; a history
 * whose chain disowns a manifest is reported.
 */
final class BroughtHashes
{
    /**
     * @var array<string, array{HashAlgorithm, string, int, int}> algorithm, checksum, Unix seconds of the hash, index of the list; by path
     */
    private array $newest = [];

    /** @var list<string> paths of the lists */
    private array $lists = [];

    /** @param  list<array{path: string, reason: string}>  $faults */
    private function __construct(public array $faults = []) {}

    public static function on(string $root): self
    {
        $brought = new self();
        $brought->history($root, '');
        foreach (FolderWalk::of($root) as $path => $facts) {
            $path = (string) $path;
            if ($facts['type'] === 'folder' && basename($path) === FolderWalk::HISTORY && $path !== FolderWalk::HISTORY) {
                $brought->history($root, dirname($path) === '.' ? '' : dirname($path));
            } elseif (
                $facts['type'] === 'file' &&
                str_ends_with(strtolower($path), '.mhl') &&
                !in_array(FolderWalk::HISTORY, explode('/', dirname($path)), true)
            ) {
                $brought->list($root, $path);
            }
        }

        return $brought;
    }

    /** The algorithm in which the card knows a file, to be computed while it is read; null when it knows nothing. */
    public function algorithmOf(string $path): ?HashAlgorithm
    {
        return $this->newest[$path][0] ?? null;
    }

    /** @return string|null why a file is not what the card itself says; null when it is, or the card says nothing */
    public function disagreement(string $path, string $hash): ?string
    {
        if (!isset($this->newest[$path]) || hash_equals($this->newest[$path][1], $hash)) {
            return null;
        }
        [$algorithm, , , $list] = $this->newest[$path];

        return sprintf(
            'It is not what the card itself says it is: its %s differs from the one in %s.',
            strtoupper($algorithm->value),
            UnableToVerify::quote($this->lists[$list]),
        );
    }

    private function history(string $root, string $below): void
    {
        $folder = $below === '' ? $root : "$root/$below";
        $at = ltrim("$below/" . FolderWalk::HISTORY, '/');
        try {
            $chain = Manifest::chain($folder);
        } catch (UnableToVerify $trouble) {
            $this->faults[] = [
                'path' => $at,
                'reason' => 'The history that the card brings along cannot be read: ' . lcfirst($trouble->getMessage()),
            ];

            return;
        }
        foreach ($chain as $generation) {
            $file = $folder . '/' . FolderWalk::HISTORY . '/' . $generation['path'];
            $why = match (true) {
                basename($generation['path']) !== $generation['path'],
                is_link($file),
                !is_file($file)
                    => 'The chain of the card names it, and it is not there.',
                C4::ofFile($file) !== $generation['c4'] => 'It is not the manifest that the chain of the card knows.',
                default => null,
            };
            if ($why !== null) {
                $this->faults[] = ['path' => $at . '/' . basename($generation['path']), 'reason' => $why];

                continue;
            }
            try {
                $this->take(Manifest::read($file), $below, $at . '/' . $generation['path']);
            } catch (UnableToVerify $trouble) {
                $this->faults[] = ['path' => $at . '/' . $generation['path'], 'reason' => $trouble->getMessage()];
            }
        }
        $this->tellStrangers($folder, $at, array_column($chain, 'path'));
    }

    /**
     * A manifest beside the history that the chain does not know would be taken for one of it in the copy.
     *
     * @param  list<string>  $owned
     */
    private function tellStrangers(string $folder, string $at, array $owned): void
    {
        if ($at !== FolderWalk::HISTORY) {
            return; // further down all of it is copied, file by file
        }
        foreach (@scandir($folder . '/' . FolderWalk::HISTORY) ?: [] as $name) {
            if (FolderWalk::isOfHistory($name) && $name !== Manifest::CHAIN && !in_array($name, $owned, true)) {
                $this->faults[] = [
                    'path' => $at . '/' . $name,
                    'reason' => 'It lies beside the history and the chain does not know it; it was not copied.',
                ];
            }
        }
    }

    private function list(string $root, string $path): void
    {
        try {
            $this->take(LegacyManifest::read($root . '/' . $path), dirname($path) === '.' ? '' : dirname($path), $path);
        } catch (UnableToVerify) {
            // A file like any other, whatever it is.
        }
    }

    /** @param  list<ManifestEntry>  $entries */
    private function take(array $entries, string $below, string $list): void
    {
        $index = count($this->lists);
        $this->lists[] = $list;
        foreach ($entries as $entry) {
            if (
                $entry->action === 'failed' ||
                $entry->path === '' ||
                $entry->path[0] === '/' ||
                in_array('..', explode('/', $entry->path), true)
            ) {
                continue;
            }
            $path = $below === '' ? $entry->path : $below . '/' . $entry->path;
            if (($this->newest[$path][2] ?? PHP_INT_MIN) <= $entry->hashedAt) {
                $this->newest[$path] = [$entry->algorithm, $entry->hash, $entry->hashedAt, $index];
            }
        }
    }
}
