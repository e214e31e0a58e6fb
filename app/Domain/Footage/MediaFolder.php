<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Models\Clip;
use App\Support\Folders;
use Illuminate\Filesystem\FilesystemAdapter;
use Illuminate\Support\Facades\Storage;
use League\Flysystem\Local\LocalFilesystemAdapter;

/**
 * What is kept of one clip beside its recording, on whatever disk that is. Programs and the core read and write files: on a local
 * disk those of the folder itself, elsewhere copies in a scratch folder of this machine, which {@see self::keep} sends on.
 */
final readonly class MediaFolder
{
    public const DISK = 'media';

    /** Seconds for which a signed address holds. */
    private const SIGNED = 3600;

    /** The shape beside a guide sound belongs to it. */
    private const BESIDE = ['guide' => ['guide.shape']];

    private function __construct(private string $below) {}

    public static function of(Clip $clip): self
    {
        return new self(substr($clip->ulid, -2) . '/' . $clip->ulid);
    }

    public static function isLocal(): bool
    {
        return self::disk()->getAdapter() instanceof LocalFilesystemAdapter;
    }

    public function has(MediaFile $file): bool
    {
        return self::isLocal() ? is_file($this->path($file)) : self::disk()->exists($this->name($file));
    }

    /** A file that can be read, fetched if it lies elsewhere; it may not be there. */
    public function read(MediaFile $file): string
    {
        $path = $this->path($file);
        if (!self::isLocal() && !is_file($path) && self::disk()->exists($this->name($file))) {
            self::make(dirname($path));
            foreach ([$file->value, ...self::BESIDE[$file->value] ?? []] as $name) {
                $stream = self::disk()->readStream("$this->below/$name");
                if ($stream !== null) {
                    file_put_contents(dirname($path) . "/$name.part", $stream);
                    rename(dirname($path) . "/$name.part", dirname($path) . "/$name");
                }
            }
        }

        return $path;
    }

    /** Where a file is written, with its folder; {@see self::keep} afterwards. */
    public function write(MediaFile $file): string
    {
        $path = $this->path($file);
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
                self::disk()->writeStream($this->below . '/' . basename($path), $stream);
                fclose($stream);
            }
        }
    }

    /** Where nginx finds a file below the media of this machine; null where they lie elsewhere. */
    public function accel(MediaFile $file): ?string
    {
        return self::isLocal() ? config('cartella.accel') . $this->name($file) : null;
    }

    /** An address at which a browser gets the file from where it lies, for an hour. */
    public function signed(MediaFile $file): string
    {
        return self::disk()->temporaryUrl($this->name($file), now()->addSeconds(self::SIGNED));
    }

    private function name(MediaFile $file): string
    {
        return $this->below . '/' . $file->value;
    }

    private function path(MediaFile $file): string
    {
        return $this->folder() . '/' . $file->value;
    }

    private static function make(string $folder): void
    {
        if (!is_dir($folder) && !@mkdir($folder, 0775, true) && !is_dir($folder)) {
            throw new \RuntimeException("$folder cannot be made.");
        }
    }

    private static function disk(): FilesystemAdapter
    {
        $disk = Storage::disk(self::DISK);

        return $disk instanceof FilesystemAdapter ? $disk : throw new \LogicException('The disk of media is none that Flysystem serves.');
    }
}
