<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\Handoff;
use App\Support\Disk;
use App\Support\Folders;
use Cartella\Core\Custody\FolderWalk;
use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\Manifest;
use Cartella\Core\Custody\ManifestEntry;
use Cartella\Core\Custody\Verify;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Illuminate\Support\Facades\File;
use League\Flysystem\FileAttributes;

/**
 * A folder of the editing team's inbox, on whatever disk that is. On a volume it is made beside its place and renamed. In a bucket it is
 * made in the scratch folder of this machine and sent from there; each file is read back and compared, and the chain of its manifests
 * comes last: what has one is whole.
 */
final readonly class Delivery
{
    public const DISK = 'packages';

    private const PIECE = 1 << 20;

    private const CHAIN = FolderWalk::HISTORY . '/' . Manifest::CHAIN;

    private function __construct(private string $below) {}

    public static function of(Handoff $handoff): self
    {
        return new self($handoff->folder);
    }

    /** @param  string  $below  the folder's place in the inbox */
    public static function at(string $below): self
    {
        return new self($below);
    }

    public static function isLocal(): bool
    {
        return Disk::isLocal(self::DISK);
    }

    /** The disk of this machine that fills while one is made. */
    public static function room(): string
    {
        return self::isLocal() ? Folders::inbox() : Folders::scratch();
    }

    /** Where it is made on this machine, and on a volume stays. */
    public function folder(): string
    {
        return self::isLocal() ? Folders::inbox($this->below) : Folders::scratch("packages/$this->below");
    }

    /** Where a run writes it until it is whole. */
    public function work(string $run): string
    {
        return dirname($this->folder()) . "/.$run.part";
    }

    /** Whether something lies at its place, which may be another's. */
    public function isThere(): bool
    {
        return self::isLocal() ? is_dir($this->folder()) : Disk::of(self::DISK)->exists("$this->below/" . self::CHAIN);
    }

    /**
     * Sends what was made to where it is kept; on a volume it lies there already. A run that was killed goes on behind what it has sent.
     *
     * @param  callable(string): void  $moved  gets each path when it is there; may throw to stop
     *
     * @throws UnableToReadMedia if what is kept is not what was sent
     */
    public function send(callable $moved): void
    {
        if (self::isLocal()) {
            return;
        }
        $folder = $this->folder();
        $hashes = [];
        foreach (self::entries($folder) as $entry) {
            $hashes[$entry->path] = [$entry->algorithm, $entry->hash];
        }
        $paths = array_map(
            strval(...),
            array_keys(array_filter(iterator_to_array(FolderWalk::of($folder)), static fn(array $one): bool => $one['type'] === 'file')),
        );
        foreach (glob("$folder/" . FolderWalk::HISTORY . '/*') ?: [] as $file) {
            $paths[] = FolderWalk::HISTORY . '/' . basename($file);
        }
        $paths = [...array_diff(array_unique($paths), [self::CHAIN]), self::CHAIN];
        foreach ($paths as $path) {
            [$algorithm, $hash] = $hashes[$path] ?? [HashAlgorithm::Xxh128, (string) HashAlgorithm::Xxh128->ofFile("$folder/$path")];
            if ($this->hashOf($path, $algorithm) !== $hash) {
                $this->put($path, "$folder/$path");
                if ($this->hashOf($path, $algorithm) !== $hash) {
                    throw UnableToReadMedia::program('The package', $path, 'what the store keeps of it is not what was sent');
                }
            }
            $moved($path);
        }
        File::deleteDirectory($folder);
    }

    /** Takes away what a run that is not to go on has sent. */
    public function abandon(): void
    {
        if (!self::isLocal() && !$this->isThere()) {
            File::deleteDirectory($this->folder());
            Disk::of(self::DISK)->deleteDirectory($this->below);
        }
    }

    /** @return array<string, array{type: string, size: int}> what lies in it, by path; without its history */
    public function list(): array
    {
        if (self::isLocal()) {
            return is_dir($this->folder()) ? iterator_to_array(FolderWalk::of($this->folder())) : [];
        }
        $list = [];
        foreach (Disk::of(self::DISK)->getDriver()->listContents($this->below, true) as $one) {
            $path = substr($one->path(), strlen($this->below) + 1);
            if ($one instanceof FileAttributes && !str_starts_with($path, FolderWalk::HISTORY . '/')) {
                $list[$path] = ['type' => 'file', 'size' => (int) $one->fileSize()];
            }
        }

        return $list;
    }

    /** @return array<string, int> bytes of each file by its path, as the manifests say them */
    public function known(): array
    {
        $known = [];
        foreach (self::entries($this->history()) as $entry) {
            $known[$entry->path] = $entry->sizeBytes;
        }

        return $known;
    }

    /** A file of it on this machine, fetched if it lies elsewhere; null if it is not there. */
    public function read(string $path): ?string
    {
        if (self::isLocal()) {
            $file = "{$this->folder()}/$path";

            return is_file($file) && !is_link($file) ? $file : null;
        }
        $stream = Disk::of(self::DISK)->exists("$this->below/$path") ? Disk::of(self::DISK)->readStream("$this->below/$path") : null;
        if ($stream === null) {
            return null;
        }
        $file = Folders::scratch("read/$this->below/$path");
        File::ensureDirectoryExists(dirname($file));
        file_put_contents("$file.part", $stream);
        rename("$file.part", $file);

        return $file;
    }

    /** Whether a file of it is there. */
    public function has(string $path): bool
    {
        return self::isLocal() ? $this->read($path) !== null : Disk::of(self::DISK)->exists("$this->below/$path");
    }

    /** Where nginx finds a file below the inbox of this machine; null where it lies elsewhere. */
    public function accel(string $path): ?string
    {
        return self::isLocal()
            ? config('cartella.accel_inbox') . implode('/', array_map(rawurlencode(...), explode('/', "$this->below/$path")))
            : null;
    }

    /** An address at which a browser gets a file from where it lies, for an hour. */
    public function signed(string $path, string $kind, string $disposition): string
    {
        return Disk::of(self::DISK)->temporaryUrl("$this->below/$path", now()->addSeconds(Disk::SIGNED), [
            'ResponseContentType' => $kind,
            'ResponseContentDisposition' => $disposition,
        ]);
    }

    /**
     * Reads all of it against its manifests.
     *
     * @param  callable(string $path, int $bytes, int $files): void  $progress
     * @return array{ok: bool, missing: list<string>, altered: list<string>, new: list<string>, renamed: list<array{from: string,
     *     to: string}>, problems: list<string>}
     */
    public function verify(callable $progress): array
    {
        return self::isLocal()
            ? Verify::folder($this->folder(), progress: $progress)
            : Verify::elsewhere(
                $this->history(),
                array_map(static fn(array $one): int => $one['size'], $this->list()),
                $this->hashOf(...),
                $progress,
            );
    }

    /** A folder of this machine with its manifests. */
    private function history(): string
    {
        if (self::isLocal()) {
            return $this->folder();
        }
        $folder = Folders::scratch("read/$this->below");
        File::deleteDirectory("$folder/" . FolderWalk::HISTORY);
        foreach (Disk::of(self::DISK)->files("$this->below/" . FolderWalk::HISTORY) as $name) {
            $this->read(FolderWalk::HISTORY . '/' . basename($name));
        }

        return $folder;
    }

    /** @return \Generator<ManifestEntry> */
    private static function entries(string $folder): \Generator
    {
        foreach (Manifest::chain($folder) as $generation) {
            yield from Manifest::read("$folder/" . FolderWalk::HISTORY . '/' . basename($generation['path']));
        }
    }

    private function put(string $path, string $file): void
    {
        $stream = @fopen($file, 'rb');
        if ($stream === false) {
            throw UnableToReadMedia::missing($file);
        }
        Disk::of(self::DISK)->writeStream("$this->below/$path", $stream);
        if (is_resource($stream)) {
            fclose($stream);
        }
    }

    /** What the store gives back of a file; null where it has none, or stops in its middle. */
    private function hashOf(string $path, HashAlgorithm $algorithm): ?string
    {
        $stream = Disk::of(self::DISK)->exists("$this->below/$path") ? Disk::of(self::DISK)->readStream("$this->below/$path") : null;
        if ($stream === null) {
            return null;
        }
        $hash = $algorithm->begin();
        while (!feof($stream)) {
            $piece = fread($stream, self::PIECE);
            if ($piece === false) {
                return null;
            }
            hash_update($hash, $piece);
        }
        fclose($stream);

        return $algorithm->end($hash);
    }
}
