<?php

declare(strict_types=1);

namespace Cartella\Core\Custody\Exception;

use Cartella\Core\Failure;

/** A folder that cannot be copied from or checked at all. */
final class UnableToVerify extends Failure
{
    public static function noFolder(string $path): self
    {
        return new self(
            sprintf('%s is not a folder that can be read.', self::quote($path)),
            'custody.missing',
            'Check the path and that the folder may be read.',
            ['path' => mb_scrub($path)],
        );
    }

    public static function noManifest(string $path): self
    {
        return new self(
            sprintf('%s holds no manifest.', self::quote($path)),
            'custody.no_manifest',
            'Choose a folder that was offloaded with a manifest (an ascmhl folder inside it).',
            ['path' => mb_scrub($path)],
        );
    }

    public static function manifest(string $file, string $why, ?\Throwable $previous = null): self
    {
        return new self(
            sprintf('The manifest %s cannot be read: %s.', self::quote(basename($file)), $why),
            'custody.manifest',
            'Compare it with the manifest on another copy.',
            ['path' => mb_scrub($file)],
            $previous,
        );
    }
}
