<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Models\Clip;
use App\Support\Disk;
use App\Support\Folders;
use Cartella\Core\Media\Exception\UnableToReadMedia;

/**
 * What is kept of one clip beside its recording, on whatever disk that is. Programs and the core read and write files: on a local
 * disk those of the folder itself, elsewhere copies in a scratch folder of this machine, which {@see self::keep} sends on.
 */
final readonly class MediaFolder
{
    public const DISK = 'media';

    /** The shape beside a guide sound belongs to it. */
    private const BESIDE = ['guide' => ['guide.shape']];

    private function __construct(private string $below) {}

    public static function of(Clip $clip): self
    {
        // What was taken from a library has its media there.
        $ulid = $clip->library_ulid ?? $clip->ulid;

        return new self(substr($ulid, -2) . '/' . $ulid);
    }

    public static function isLocal(): bool
    {
        return Disk::isLocal(self::DISK);
    }

    public function has(MediaFile $file, int $channel = 0): bool
    {
        return self::isLocal() ? is_file($this->path($file, $channel)) : Disk::of(self::DISK)->exists($this->name($file, $channel));
    }

    /** A file that can be read, fetched if it lies elsewhere and is newer there; it may not be there. */
    public function read(MediaFile $file, int $channel = 0): string
    {
        $path = $this->path($file, $channel);
        if (!self::isLocal() && $this->isOld($file, $channel)) {
            self::make(dirname($path));
            foreach ([$file->file($channel), ...self::BESIDE[$file->value] ?? []] as $name) {
                $stream = Disk::of(self::DISK)->readStream("$this->below/$name");
                if ($stream !== null) {
                    file_put_contents(dirname($path) . "/$name.part", $stream);
                    rename(dirname($path) . "/$name.part", dirname($path) . "/$name");
                }
            }
        }

        return $path;
    }

    /** Whether another machine has made it since it was fetched, or it never was. */
    private function isOld(MediaFile $file, int $channel = 0): bool
    {
        return Disk::of(self::DISK)->exists($this->name($file, $channel)) &&
            (int) @filemtime($this->path($file, $channel)) < Disk::of(self::DISK)->lastModified($this->name($file, $channel));
    }

    /** Where a file is written, with its folder; {@see self::keep} afterwards. */
    public function write(MediaFile $file, int $channel = 0): string
    {
        $path = $this->path($file, $channel);
        self::make(dirname($path));

        return $path;
    }

    /** The folder of a clip's media on this machine, where programs write several at once: the one they stay in, or scratch. */
    public function folder(): string
    {
        return (self::isLocal() ? Folders::media() : Folders::scratch()) . '/' . $this->below;
    }

    /** The same, made if it is not there. */
    public function work(): string
    {
        self::make($this->folder());

        return $this->folder();
    }

    /** Sends what was made to where it is kept; on a local disk it lies there already. */
    public function keep(): void
    {
        if (self::isLocal()) {
            return;
        }
        foreach (glob($this->folder() . '/*') ?: [] as $path) {
            $stream = is_file($path) && !str_contains(basename($path), '.part') ? fopen($path, 'rb') : false;
            if ($stream !== false) {
                Disk::of(self::DISK)->writeStream($this->below . '/' . basename($path), $stream);
                fclose($stream);
            }
        }
    }

    /** Takes away what older recipes made; what is being made has another name. */
    public function dropOld(): void
    {
        foreach (glob($this->folder() . '/*') ?: [] as $path) {
            if (MediaFile::isOld(basename($path))) {
                unlink($path);
            }
        }
        foreach (self::isLocal() ? [] : Disk::of(self::DISK)->files($this->below) as $name) {
            if (MediaFile::isOld(basename($name))) {
                Disk::of(self::DISK)->delete($name);
            }
        }
    }

    /** Where nginx finds a file below the media of this machine; null where they lie elsewhere. */
    public function accel(MediaFile $file, int $channel = 0): ?string
    {
        return self::isLocal() ? config('cartella.accel') . $this->name($file, $channel) : null;
    }

    /** An address at which a browser gets the file from where it lies, for an hour. */
    public function signed(MediaFile $file, int $channel = 0): string
    {
        return Disk::of(self::DISK)->temporaryUrl($this->name($file, $channel), now()->addSeconds(Disk::SIGNED));
    }

    private function name(MediaFile $file, int $channel = 0): string
    {
        return $this->below . '/' . $file->file($channel);
    }

    private function path(MediaFile $file, int $channel = 0): string
    {
        return $this->folder() . '/' . $file->file($channel);
    }

    private static function make(string $folder): void
    {
        if (!is_dir($folder) && !@mkdir($folder, 0775, true) && !is_dir($folder)) {
            throw UnableToReadMedia::missing($folder);
        }
    }
}
