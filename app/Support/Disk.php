<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Filesystem\FilesystemAdapter;
use Illuminate\Support\Facades\Storage;
use League\Flysystem\Local\LocalFilesystemAdapter;

/** What the desk keeps by Flysystem: a folder of this machine, or a bucket (config/filesystems.php). */
final class Disk
{
    /** Seconds for which a signed address holds. */
    public const SIGNED = 3600;

    public static function of(string $name): FilesystemAdapter
    {
        $disk = Storage::disk($name);

        return $disk instanceof FilesystemAdapter ? $disk : throw new \LogicException("The disk $name is none that Flysystem serves.");
    }

    public static function isLocal(string $name): bool
    {
        return self::of($name)->getAdapter() instanceof LocalFilesystemAdapter;
    }
}
