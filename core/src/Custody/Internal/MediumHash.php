<?php

declare(strict_types=1);

namespace Cartella\Core\Custody\Internal;

/**
 * The checksum of a file as its medium holds it, and which it was: `medium` when every byte came past the page cache,
 * `cache` when the file system knows no such reading. Stands without the autoloader, like {@see Libc}.
 *
 * @internal
 */
final class MediumHash
{
    private const PIECE = 1 << 18;

    /**
     * @param  string  $name  what PHP's `hash` calls the algorithm
     * @return array{string|null, 'medium'|'cache'} hexadecimal; null when the file cannot be read to its end
     */
    public static function of(string $path, string $name): array
    {
        $hash = hash_init($name);
        $isWhole = Libc::readMedium($path, static function (string $piece) use ($hash): void {
            hash_update($hash, $piece);
        });
        if ($isWhole !== null) {
            return [$isWhole ? hash_final($hash) : null, 'medium'];
        }
        Libc::forget($path);

        return [self::throughCache($path, $name), 'cache'];
    }

    private static function throughCache(string $path, string $name): ?string
    {
        $stream = @fopen($path, 'rb');
        if ($stream === false) {
            return null;
        }
        stream_set_read_buffer($stream, 0);
        $hash = hash_init($name);
        while (($piece = @fread($stream, self::PIECE)) !== false && $piece !== '') {
            hash_update($hash, $piece);
        }
        $isWhole = feof($stream);
        fclose($stream);

        return $isWhole ? hash_final($hash) : null;
    }
}
