<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

use Cartella\Core\Custody\Exception\InvalidCustody;
use Cartella\Core\Custody\Exception\UnableToVerify;
use Cartella\Core\Custody\Internal\Destination;
use Cartella\Core\Failure;

/**
 * Copies a card to one or more destinations with proof: every source byte is read once and hashed while it is
 * written everywhere; each copy is flushed, read back and compared before it gets its final name.
 *
 * The card is only read. One bad file or destination stops itself and nothing else. Run again after any stop, it goes
 * on with what is not verified yet. Memory does not grow with the files.
 */
final class Offload
{
    private const PIECE = 4 << 20;

    private int $files = 0;

    private int $bytes = 0;

    private int $verified = 0;

    /** @var list<array{path: string, reason: string, byte?: int, destination?: string}> */
    private array $faults = [];

    /**
     * @param  list<Destination>  $destinations
     * @param  (callable(array<string, mixed>): void)|null  $onFile
     * @param  (callable(string $path, int $copiedBytes, 'copying'|'reading back' $step): void)|null  $onBytes
     */
    private function __construct(
        private readonly string $source,
        private readonly array $destinations,
        private readonly HashAlgorithm $algorithm,
        private readonly bool $resume,
        private $onFile,
        private $onBytes,
    ) {
    }

    /**
     * @param  list<string>  $destinations  folders; the copy lands in `DEST/<name of source>/`
     * @param  (callable(array<string, mixed>): void)|null  $onFile  after each file, with its path, bytes, hash and state
     * @param  (callable(string, int, string): void)|null  $onBytes  while a file goes; may throw to stop the run cleanly
     * @param  string|null  $name  the folder's name at the destinations, if not the source's own
     * @param  (callable(): int)|null  $clock  Unix seconds
     *
     * @throws InvalidCustody if a destination lies inside the source or is named twice
     * @throws UnableToVerify if the source is not a folder that can be read
     */
    public static function run(
        string $source,
        array $destinations,
        HashAlgorithm $algorithm = HashAlgorithm::Xxh128,
        bool $resume = false,
        ?callable $onFile = null,
        ?callable $onBytes = null,
        ?string $name = null,
        ?callable $clock = null,
    ): OffloadReport {
        $real = realpath($source);
        if ($real === false || ! is_dir($real) || ! is_readable($real)) {
            throw UnableToVerify::noFolder($source);
        }
        $clock ??= 'time';
        $targets = self::destinations($real, $destinations, $name ?? basename($real));
        $offload = new self($real, $targets, $algorithm, $resume, $onFile, $onBytes);
        $offload->copyAll($clock);

        return $offload->report($clock());
    }

    /**
     * @param  list<string>  $paths
     * @return list<Destination>
     */
    private static function destinations(string $source, array $paths, string $name): array
    {
        if ($paths === []) {
            throw InvalidCustody::destinations('none is named');
        }
        $seen = [];
        foreach ($paths as $path) {
            // What does not exist yet is judged by the nearest folder above it that does.
            $existing = $path;
            while (! file_exists($existing) && dirname($existing) !== $existing) {
                $existing = dirname($existing);
            }
            $full = rtrim((string) realpath($existing), '/').substr(rtrim($path, '/'), strlen(rtrim($existing, '/')));
            if (isset($seen[$full])) {
                throw InvalidCustody::destinations('the same folder is named twice');
            }
            if ($full === $source || str_starts_with($full.'/', $source.'/') || $full.'/'.$name === $source) {
                throw InvalidCustody::destinations('one of them lies inside the source');
            }
            if (is_file($existing)) {
                throw InvalidCustody::destinations('one of them is a file');
            }
            $seen[$full] = new Destination($full, $name);
        }

        return array_values($seen);
    }

    private function copyAll(callable $clock): void
    {
        foreach ($this->destinations as $destination) {
            $destination->open($this->resume);
        }
        foreach (FolderWalk::of($this->source) as $path => $facts) {
            $path = (string) $path;
            if ($facts['type'] === 'folder') {
                foreach ($this->destinations as $destination) {
                    $destination->makeFolder($path);
                }

                continue;
            }
            if ($facts['type'] !== 'file') {
                $this->fault($path, match ($facts['type']) {
                    'link' => 'It is a symbolic link; links are not followed.',
                    'special' => 'It is a pipe, a device or a socket, not a file.',
                    default => 'It cannot be read.',
                });

                continue;
            }
            $this->files++;
            $this->bytes += $facts['size'];
            if (! Manifest::canName($path)) {
                $this->fault($path, 'Its name holds bytes that no manifest can carry.');

                continue;
            }
            $this->one($path, $facts, $clock);
        }
    }

    /** @param  array{type: string, size: int, mtime: int}  $facts */
    private function one(string $path, array $facts, callable $clock): void
    {
        $writing = $checking = [];
        $done = 0;
        $known = null;
        foreach ($this->destinations as $destination) {
            $hash = $destination->verifiedHash($path, $facts['size'], $facts['mtime'], $this->algorithm);
            if ($destination->stopped !== null) {
                continue;
            }
            if ($hash !== null) {
                $known = $hash;
                $done++;
            } elseif ($destination->has($path)) {
                $checking[] = $destination;
            } else {
                $writing[] = $destination;
            }
        }
        if ($writing !== [] || $checking !== []) {
            $hash = $this->copy($path, $facts, $writing);
            if ($hash === null) {
                return;
            }
            $done += $this->verify($path, $facts, $hash, $writing, $checking, $clock);
            $known = $hash;
        }
        $everywhere = $done === count($this->destinations);
        if ($everywhere) {
            $this->verified++;
        }
        if ($this->onFile !== null) {
            ($this->onFile)(['path' => mb_scrub($path), 'bytes' => $facts['size'], 'hash' => $known, 'algorithm' => $this->algorithm->value, 'copies' => $done, 'state' => $everywhere ? 'verified' : 'fault']);
        }
    }

    /**
     * Reads the source once, to the hash and to every destination that needs the file.
     *
     * @param  array{type: string, size: int, mtime: int}  $facts
     * @param  list<Destination>  $writing
     * @return string|null null when the source failed; the fault is noted and nothing is left behind
     */
    private function copy(string $path, array $facts, array $writing): ?string
    {
        $stream = @fopen($this->source.'/'.$path, 'rb');
        if ($stream === false) {
            $this->fault($path, 'It cannot be opened.', 0);

            return null;
        }
        stream_set_read_buffer($stream, 0);
        $opened = fstat($stream);
        foreach ($writing as $destination) {
            $destination->begin($path);
        }
        $hash = hash_init($this->algorithm->value);
        $read = 0;
        $reason = null;
        try {
            while ($read < $facts['size']) {
                error_clear_last();
                $piece = @fread($stream, min(self::PIECE, $facts['size'] - $read));
                if ($piece === false || $piece === '') {
                    clearstatcache();
                    $reason = error_get_last() === null && (@filesize($this->source.'/'.$path) !== $facts['size'])
                        ? 'It changed while it was being copied.'
                        : 'It cannot be read past this byte.';
                    break;
                }
                hash_update($hash, $piece);
                $read += strlen($piece);
                foreach ($writing as $destination) {
                    $destination->write($piece);
                }
                if ($this->onBytes !== null) {
                    ($this->onBytes)($path, $read, 'copying');
                }
            }
            clearstatcache();
            $after = @lstat($this->source.'/'.$path);
            if ($reason === null && ($after === false || $after['size'] !== $facts['size'] || $after['mtime'] !== $facts['mtime'] || $after['ino'] !== $opened['ino'])) {
                $reason = 'It changed while it was being copied.';
            }
        } catch (\Throwable $stop) {
            foreach ($writing as $destination) {
                $destination->abandon();
            }
            throw $stop;
        } finally {
            fclose($stream);
        }
        if ($reason !== null) {
            foreach ($writing as $destination) {
                $destination->abandon();
            }
            $this->fault($path, $reason, $read);

            return null;
        }

        return hash_final($hash);
    }

    /**
     * @param  array{type: string, size: int, mtime: int}  $facts
     * @param  list<Destination>  $writing
     * @param  list<Destination>  $checking
     * @return int destinations at which the file is verified now
     */
    private function verify(string $path, array $facts, string $hash, array $writing, array $checking, callable $clock): int
    {
        $done = 0;
        if ($this->onBytes !== null) {
            ($this->onBytes)($path, $facts['size'], 'reading back');
        }
        foreach ($writing as $destination) {
            $trouble = $destination->finish($path, $facts, $hash, $this->algorithm, $clock());
            if ($trouble === null) {
                $done++;
            } else {
                $this->fault($path, $trouble, destination: $destination->root);
            }
        }
        foreach ($checking as $destination) {
            if ($destination->holds($path, $facts, $hash, $this->algorithm, $clock())) {
                $done++;
            } else {
                $this->fault($path, 'Another file of that name is already there; it was left as it is.', destination: $destination->root);
            }
        }

        return $done;
    }

    private function fault(string $path, string $reason, ?int $byte = null, ?string $destination = null): void
    {
        $fault = ['path' => mb_scrub($path), 'reason' => $reason];
        if ($byte !== null) {
            $fault['byte'] = $byte;
        }
        if ($destination !== null) {
            $fault['destination'] = Failure::quote($destination);
        }
        $this->faults[] = $fault;
        if ($this->onFile !== null) {
            ($this->onFile)($fault + ['state' => 'fault']);
        }
    }

    private function report(int $now): OffloadReport
    {
        $manifests = [];
        foreach ($this->destinations as $destination) {
            if ($destination->stopped !== null) {
                $this->faults[] = ['path' => '', 'reason' => $destination->stopped, 'destination' => Failure::quote($destination->root)];
            }
            $manifest = $destination->close($this->algorithm, $now);
            if ($manifest !== null) {
                $manifests[] = $manifest;
            }
        }

        return new OffloadReport($this->files, $this->bytes, $this->verified, $this->faults, $manifests);
    }
}
