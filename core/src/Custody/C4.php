<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

/** C4 identifier of bytes (SMPTE ST 2114): `c4` and the SHA-512 as 88 digits to the base 58. */
final class C4
{
    private const DIGITS = '123456789ABCDEFGHJKLMNPQRSTUVWXYZabcdefghijkmnopqrstuvwxyz';

    public static function ofFile(string $path): string
    {
        return self::encode((string) hash_file('sha512', $path, true));
    }

    /** @param  string  $digest 64 bytes */
    public static function encode(string $digest): string
    {
        $bytes = array_values(unpack('C*', $digest) ?: []);
        $text = '';
        for ($digit = 0; $digit < 88; $digit++) {
            $rest = 0;
            foreach ($bytes as $i => $byte) {
                $value = $rest * 256 + $byte;
                $bytes[$i] = intdiv($value, 58);
                $rest = $value % 58;
            }
            $text = self::DIGITS[$rest] . $text;
        }

        return 'c4' . $text;
    }
}
