<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

/** Text of files whose encoding nobody states. */
final class Text
{
    /** The text as UTF-8; bytes that are not UTF-8 are taken as Windows-1252, which is what field devices write. */
    public static function utf8(string $bytes): string
    {
        return mb_check_encoding($bytes, 'UTF-8') ? $bytes : mb_convert_encoding($bytes, 'UTF-8', 'Windows-1252');
    }
}
