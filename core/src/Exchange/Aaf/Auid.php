<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Aaf;

/** Identifiers of 16 bytes as AAF stores them: the first three parts little-endian, the last eight bytes as they stand. */
final class Auid
{
    /** @param  string  $text  such as `0d010101-0101-2f00-060e-2b3402060101` */
    public static function bytes(string $text): string
    {
        [$one, $two, $three, $four, $five] = explode('-', $text);

        return pack('Vvv', hexdec($one), hexdec($two), hexdec($three)) . hex2bin($four . $five);
    }

    /** @param  string  $bytes  sixteen */
    public static function text(string $bytes): string
    {
        $part = unpack('Vone/vtwo/vthree', $bytes);
        $rest = bin2hex(substr($bytes, 8, 8));

        return $part === false
            ? ''
            : sprintf('%08x-%04x-%04x-%s-%s', $part['one'], $part['two'], $part['three'], substr($rest, 0, 4), substr($rest, 4));
    }

    /** The same 16 bytes for the same words, as random as a hash is. */
    public static function of(string $words): string
    {
        return substr(hash('sha256', $words, true), 0, 16);
    }
}
