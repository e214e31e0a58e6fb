<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

use Cartella\Core\Custody\Exception\InvalidCustody;
use Cartella\Core\Custody\Exception\UnableToVerify;
use Cartella\Core\Custody\Internal\Batch;
use Cartella\Core\Custody\Internal\Destination;
use Cartella\Core\Custody\Internal\Flush;
use Cartella\Core\Custody\Internal\SourceFile;

/**
 * Copies a card to one or more destinations with proof: every source byte is read once and hashed while it is
 * written everywhere; each copy is flushed, read back and compared before it gets its final name.
 *
 * A card that brings hashes along is held to them: a file that is not what its newest hash says is never verified.
 *
 * The card is only read. One bad file or destination stops itself and nothing else. Run again after any stop, it goes
 * on with what is not verified yet. Files go in batches: while one batch is being written down by the disks, the next
 * is copied. Memory does not grow with the files.
 */
final class Offload
{
    /** The reason that a destination gives while another run holds the folder. */
    public const BUSY = 'Another offload is writing the same folder there.';

    private int $files = 0;

    private int $bytes = 0;

    private int $verified = 0;

    /** @var list<array{path: string, reason: string, byte?: int, destination?: string}> */
    private array $faults = [];

    private Batch $batch;

    /** The batch that the disks are writing down, and the flush that says when they have. */
    private ?Batch $flushing = null;

    private ?Flush $flush = null;

    /** The batch that is read back. */
    private ?Batch $reading = null;

    private readonly OffloadProgress $progress;

    private BroughtHashes $brought;

    /** Files that are what the card's own lists say. */
    private int $matched = 0;

    /**
     * @param  list<Destination>  $destinations
     * @param  (callable(array<string, mixed>): void)|null  $onFile
     * @param  (callable(OffloadProgress): void)|null  $onProgress
     * @param  callable(): int  $clock
     */
    private function __construct(
        private readonly string $source,
        private readonly array $destinations,
        private readonly HashAlgorithm $algorithm,
        private readonly bool $resume,
        private $onFile,
        private $onProgress,
        private $clock,
    ) {
        $this->batch = new Batch();
        $this->progress = new OffloadProgress();
        $this->progress->verifiedBytes = array_fill(0, count($destinations), 0);
    }

    /**
     * @param  list<string>  $destinations  folders; the copy lands in `DEST/<name of source>/`
     * @param  (callable(array<string, mixed>): void)|null  $onFile  after each file, with its path, bytes, hash and state
     * @param  (callable(OffloadProgress): void)|null  $onProgress  for every piece of a file; may throw to stop the run cleanly
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
        ?callable $onProgress = null,
        ?string $name = null,
        ?callable $clock = null,
    ): OffloadReport {
        $real = realpath($source);
        if ($real === false || !is_dir($real) || !is_readable($real)) {
            throw UnableToVerify::noFolder($source);
        }
        $targets = self::destinations($real, $destinations, $name ?? basename($real));
        $offload = new self($real, $targets, $algorithm, $resume, $onFile, $onProgress, $clock ?? 'time');
        try {
            $offload->copyAll();
        } finally {
            foreach ($targets as $target) {
                $target->abandon();
            }
        }

        return $offload->report();
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
            $path = str_starts_with($path, '/') ? $path : getcwd() . '/' . $path;
            // What does not exist yet is judged by the nearest folder above it that does.
            $existing = $path;
            while (!file_exists($existing) && dirname($existing) !== $existing) {
                $existing = dirname($existing);
            }
            $full = rtrim((string) realpath($existing), '/') . substr(rtrim($path, '/'), strlen(rtrim($existing, '/')));
            if (isset($seen[$full])) {
                throw InvalidCustody::destinations('the same folder is named twice');
            }
            if ($full === $source || str_starts_with($full . '/', $source . '/') || $full . '/' . $name === $source) {
                throw InvalidCustody::destinations('one of them lies inside the source');
            }
            if (is_file($existing)) {
                throw InvalidCustody::destinations('one of them is a file');
            }
            $seen[$full] = new Destination($full, $name);
        }

        return array_values($seen);
    }

    private function copyAll(): void
    {
        foreach ($this->destinations as $destination) {
            $destination->open($this->resume);
        }
        $this->brought = BroughtHashes::on($this->source);
        foreach ($this->brought->faults as $fault) {
            $this->fault($fault['path'], $fault['reason']);
        }
        $this->adoptHistory();
        foreach (FolderWalk::of($this->source) as $path => $facts) {
            $path = (string) $path;
            if ($facts['type'] === 'folder') {
                foreach ($this->destinations as $destination) {
                    $destination->makeFolder($path);
                }

                continue;
            }
            if ($facts['type'] !== 'file') {
                $this->fault(
                    $path,
                    match ($facts['type']) {
                        'link' => 'It is a symbolic link; links are not followed.',
                        'special' => 'It is a pipe, a device or a socket, not a file.',
                        default => 'It cannot be read.',
                    },
                );

                continue;
            }
            $this->files++;
            $this->bytes += $facts['size'];
            if (Manifest::canName($path)) {
                $this->one($path, $facts);
            } else {
                $this->failed($path, $facts, 'Its name holds bytes that no manifest can carry.');
            }
            if ($this->batch->isFull()) {
                $this->turnOver();
            }
        }
        // Once each to flush the last batch, to read it back, and to settle it.
        for ($stage = 0; $stage < 3; $stage++) {
            $this->turnOver();
        }
    }

    /** The manifests that the card brings along are read, and go on at every destination. */
    private function adoptHistory(): void
    {
        foreach ($this->destinations as $destination) {
            if ($destination->stopped !== null) {
                continue;
            }
            try {
                Manifest::adopt($this->source, $destination->folder);
            } catch (UnableToVerify $trouble) {
                $this->fault(
                    FolderWalk::HISTORY,
                    'The history that the card brings along cannot be taken over: ' . lcfirst($trouble->getMessage()),
                    destination: $destination->root,
                );
            }
        }
    }

    /** @param  array{type: string, size: int, mtime: int}  $facts */
    private function one(string $path, array $facts): void
    {
        $writing = $checking = [];
        $done = 0;
        $known = null;
        foreach ($this->destinations as $number => $destination) {
            $hash = $destination->verifiedHash($path, $facts['size'], $facts['mtime'], $this->algorithm, $this->source . '/' . $path);
            if ($destination->stopped !== null) {
                continue;
            }
            if ($hash !== null) {
                $known = $hash;
                $this->progress->verifiedBytes[$number] += $facts['size'];
                $done++;
            } elseif ($destination->has($path)) {
                $checking[] = $number;
            } else {
                $writing[] = $number;
            }
        }
        if ($writing === [] && $checking === []) {
            $this->progress->copiedBytes += $facts['size'];
            $this->settled($path, $facts['size'], $known, $done);

            return;
        }
        $this->copy($path, $facts, $writing, $checking, $done);
    }

    /**
     * Reads the source once, to the hash and to every destination that needs the file.
     *
     * @param  array{type: string, size: int, mtime: int}  $facts
     * @param  list<int>  $writing
     * @param  list<int>  $checking
     */
    private function copy(string $path, array $facts, array $writing, array $checking, int $done): void
    {
        $source = new SourceFile($this->source . '/' . $path, $facts);
        $before = $this->progress->copiedBytes;
        try {
            foreach ($source->trouble === null ? $writing : [] as $number) {
                $this->destinations[$number]->begin();
            }
            $hash = $this->algorithm->begin();
            $claimed = $this->brought->algorithmOf($path);
            $other = $claimed === $this->algorithm ? null : $claimed?->begin();
            while (($piece = $source->next()) !== null) {
                hash_update($hash, $piece);
                if ($other !== null) {
                    hash_update($other, $piece);
                }
                foreach ($writing as $number) {
                    $this->destinations[$number]->write($piece);
                }
                $this->progress->copiedBytes = $before + $source->readBytes;
                $this->tell($path, 'copying');
            }
        } finally {
            $source->close();
        }
        $this->progress->copiedBytes = $before + $facts['size'];
        $checksum = $this->algorithm->end($hash);
        if ($source->trouble === null && $claimed !== null) {
            $trouble = $this->brought->disagreement($path, $other === null ? $checksum : $claimed->end($other));
            $source->trouble = $trouble;
            $this->matched += (int) ($trouble === null);
        }
        $at = array_fill_keys($checking, null);
        foreach ($writing as $number) {
            $part = $this->destinations[$number]->end($source->trouble === null ? $facts['mtime'] : null);
            if ($part !== null) {
                $at[$number] = $part;
            }
        }
        if ($source->trouble !== null) {
            $this->failed($path, $facts, $source->trouble, $source->readBytes < $facts['size'] ? $source->readBytes : null);

            return;
        }
        $this->batch->add(
            new ManifestEntry($path, $facts['size'], $facts['mtime'], $this->algorithm, $checksum, 'original', ($this->clock)()),
            $at,
            $done,
            $source->stamp,
        );
    }

    /**
     * Moves every batch on by one stage: what was copied is written down by the disks, what they have written is read
     * back, and what was read back is settled. Copying goes on beside the first two.
     */
    private function turnOver(): void
    {
        $written = $this->flushing;
        foreach ($written === null ? [] : $this->destinations as $destination) {
            if ($destination->stopped === null && !$this->flush?->reached($destination->folder)) {
                $destination->lose();
            }
        }
        $this->flushing = $this->batch->files === [] ? null : $this->batch;
        $this->flush =
            $this->flushing === null
                ? null
                : Flush::start(
                    array_map(
                        static fn(Destination $destination): string => $destination->folder,
                        array_values(
                            array_filter($this->destinations, static fn(Destination $destination): bool => $destination->stopped === null),
                        ),
                    ),
                );
        $this->batch = new Batch();
        foreach ($written->files ?? [] as $file) {
            foreach ($file['at'] as $number => $part) {
                $this->destinations[$number]->readBack($file['entry'], $part);
            }
        }
        foreach ($this->reading->files ?? [] as $file) {
            $this->settle($file['entry'], $file['at'], $file['done'], $file['stamp']);
        }
        $this->reading = $written;
    }

    /** @param  array<int, string|null>  $at */
    private function settle(ManifestEntry $entry, array $at, int $done, ?string $stamp): void
    {
        $this->tell($entry->path, 'reading back');
        // A device that still records may write on after the copy; then what was copied is not the recording.
        $isStill = SourceFile::isStill(
            $this->source . '/' . $entry->path,
            ['size' => $entry->sizeBytes, 'mtime' => $entry->modifiedAt],
            $stamp,
        );
        foreach ($at as $number => $part) {
            $destination = $this->destinations[$number];
            if (!$isStill) {
                $destination->drop($part);

                continue;
            }
            $trouble = $destination->settle($entry, $part, $stamp);
            if ($trouble === null) {
                $this->progress->verifiedBytes[$number] += $entry->sizeBytes;
                $done++;
            } elseif ($destination->stopped === null) {
                $this->fault($entry->path, $trouble, destination: $destination->root);
            }
        }
        if ($isStill) {
            $this->settled($entry->path, $entry->sizeBytes, $entry->hash, $done);
        } else {
            $this->failed($entry->path, ['size' => $entry->sizeBytes], 'It changed while it was being copied.');
        }
    }

    private function settled(string $path, int $bytes, ?string $hash, int $copies): void
    {
        $everywhere = $copies === count($this->destinations);
        $this->verified += (int) $everywhere;
        $this->progress->files++;
        $this->progress->bytes += $bytes;
        if ($this->onFile !== null) {
            ($this->onFile)([
                'path' => mb_scrub($path),
                'bytes' => $bytes,
                'hash' => $hash,
                'algorithm' => $this->algorithm->value,
                'copies' => $copies,
                'state' => $everywhere ? 'verified' : 'fault',
            ]);
        }
        $this->tell($path, 'reading back');
    }

    /** @param  array{size: int}  $facts */
    private function failed(string $path, array $facts, string $reason, ?int $byte = null): void
    {
        $this->progress->files++;
        $this->progress->bytes += $facts['size'];
        $this->fault($path, $reason, $byte, bytes: $facts['size']);
    }

    /** @param  'copying'|'reading back'  $step */
    private function tell(string $path, string $step): void
    {
        if ($this->onProgress === null) {
            return;
        }
        $this->progress->path = mb_scrub($path);
        $this->progress->step = $step;
        ($this->onProgress)($this->progress);
    }

    private function fault(string $path, string $reason, ?int $byte = null, ?string $destination = null, ?int $bytes = null): void
    {
        $fault = ['path' => mb_scrub($path), 'reason' => $reason];
        if ($byte !== null) {
            $fault['byte'] = $byte;
        }
        if ($destination !== null) {
            $fault['destination'] = mb_scrub($destination);
        }
        $this->faults[] = $fault;
        if ($this->onFile !== null) {
            ($this->onFile)($fault + ['state' => 'fault'] + ($bytes === null ? [] : ['bytes' => $bytes]));
        }
    }

    private function report(): OffloadReport
    {
        $manifests = $folders = $readFrom = [];
        foreach ($this->destinations as $destination) {
            $readFrom[mb_scrub($destination->root)] = $destination->readFrom();
            $manifest = $destination->close($this->algorithm, ($this->clock)());
            if ($manifest !== null) {
                $manifests[] = $manifest;
                $folders[] = $destination->folder;
            }
        }
        // Names and manifests have to be on the disk as well before anybody is told that all is safe.
        $flush = Flush::start($folders);
        foreach ($this->destinations as $destination) {
            if (in_array($destination->folder, $folders, true) && !$flush->reached($destination->folder)) {
                $destination->lose();
            }
            if ($destination->stopped !== null) {
                $this->faults[] = ['path' => '', 'reason' => $destination->stopped, 'destination' => mb_scrub($destination->root)];
            }
        }

        return new OffloadReport($this->files, $this->bytes, $this->verified, $this->faults, $manifests, $this->matched, $readFrom);
    }
}
