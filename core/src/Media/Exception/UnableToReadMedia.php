<?php

declare(strict_types=1);

namespace Cartella\Core\Media\Exception;

use Cartella\Core\Failure;

/** A file that cannot be opened, or is not what it should be. */
final class UnableToReadMedia extends Failure
{
    /** The code of a WAV whose samples are coded in a way that only `ffprobe` knows. */
    public const CODING = 'media.coding';

    public static function missing(string $path): self
    {
        return new self(
            sprintf('%s cannot be opened.', self::quote(basename($path))),
            'media.missing',
            'Check the path and that the file may be read.',
            ['path' => mb_scrub($path)],
        );
    }

    public static function notWav(string $path, string $met): self
    {
        return new self(
            sprintf('%s is not a WAV file: it begins with "%s".', self::quote(basename($path)), self::quote($met)),
            'media.not_wav',
            'RIFF, RF64 and BW64 are read here; everything else goes through ffprobe.',
            ['path' => mb_scrub($path)],
        );
    }

    public static function chunk(string $path, string $chunk, int $byte, string $why): self
    {
        return new self(
            sprintf('%s: chunk "%s" at byte %d %s.', self::quote(basename($path)), self::quote($chunk), $byte, $why),
            'media.broken',
            'Copy the file from the card again; if it stays so, the recording itself is damaged.',
            ['path' => mb_scrub($path), 'byte' => $byte],
        );
    }

    public static function coding(string $path, string $met): self
    {
        return new self(
            sprintf('%s names a format that is not read here (%s).', self::quote(basename($path)), $met),
            self::CODING,
            'PCM of 16, 24 or 32 bit and floating point are read here; everything else goes through ffprobe.',
            ['path' => mb_scrub($path)],
        );
    }

    public static function program(string $program, string $path, string $why): self
    {
        return new self(
            sprintf('%s could not read %s: %s.', $program, self::quote(basename($path)), rtrim(self::quote($why), '.')),
            'media.unreadable',
            'Play the file elsewhere to see whether it is whole.',
            ['path' => mb_scrub($path), 'reason' => self::quote($why)],
        );
    }
}
