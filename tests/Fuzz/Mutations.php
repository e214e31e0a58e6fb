<?php

declare(strict_types=1);

namespace Tests\Fuzz;

use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/** Breaks a good input in one or several ways; the same seed and number break it the same way. */
final class Mutations
{
    private const HUGE = [
        "\xFF\xFF\xFF\xFF",
        "\x7F\xFF\xFF\xFF",
        "\x00\x00\x00\x80",
        "\xFF\xFF\xFF\x7F",
        "\xFF\xFF\xFF\xFF\xFF\xFF\xFF\xFF",
        "\x00\x00\x00\x00",
    ];

    private const NUMBERS = [
        '99999999999999999999',
        '-1',
        '0',
        '1e309',
        'NaN',
        '9223372036854775808',
        '00000000000001',
        "\u{661}\u{662}",
        '2147483648',
    ];

    private const TEXT = [
        "\0",
        "\xC3\x28",
        "\xED\xA0\x80",
        '<!DOCTYPE a [<!ENTITY x "y">]>',
        '&x;',
        ']]>',
        '../../../etc/passwd',
        "\r\n\r\n",
        '"',
        "'",
        '=cmd()',
        "\u{202E}",
        '%00',
        ';',
    ];

    public static function of(string $input, int $seed, int $number): string
    {
        $random = new Randomizer(new Xoshiro256StarStar(crc32("$seed.$number")));
        for ($times = $random->getInt(1, 4); $times > 0; $times--) {
            $input = self::one($input, $random);
        }

        return $input;
    }

    private static function one(string $input, Randomizer $random): string
    {
        $length = strlen($input);
        $at = $random->getInt(0, max(0, $length - 1));

        return match ($random->getInt(0, 9)) {
            0 => $length === 0 ? '' : substr_replace($input, chr(ord($input[$at]) ^ (1 << $random->getInt(0, 7))), $at, 1),
            1 => substr($input, 0, $at),
            2 => substr($input, $at),
            3 => substr_replace($input, self::HUGE[$random->getInt(0, count(self::HUGE) - 1)], $at, 4),
            4 => self::number($input, $random),
            5 => substr_replace($input, self::TEXT[$random->getInt(0, count(self::TEXT) - 1)], $at, 0),
            6 => self::repeat($input, $at, $random),
            7 => self::nest($input, $random),
            8 => substr_replace($input, '', $at, $random->getInt(1, 64)),
            default => substr_replace($input, $random->getBytes($random->getInt(1, 32)), $at, $random->getInt(0, 32)),
        };
    }

    /** One number of the text becomes one that nobody expects. */
    private static function number(string $input, Randomizer $random): string
    {
        if (preg_match_all('/\d+/', substr($input, 0, 20_000), $found, PREG_OFFSET_CAPTURE) < 1) {
            return $input;
        }
        [$digits, $at] = $found[0][$random->getInt(0, count($found[0]) - 1)];

        return substr_replace($input, self::NUMBERS[$random->getInt(0, count(self::NUMBERS) - 1)], $at, strlen($digits));
    }

    private static function repeat(string $input, int $at, Randomizer $random): string
    {
        $piece = substr($input, $at, $random->getInt(1, 200));

        return substr_replace($input, str_repeat($piece, min($random->getInt(2, 500), intdiv(200_000, max(1, strlen($piece))))), $at, 0);
    }

    /** Elements, brackets or boxes within one another, deeper than anybody writes them. */
    private static function nest(string $input, Randomizer $random): string
    {
        [$open, $close] = [['<a>', '</a>'], ['[[', ']]'], ['(', ')'], ["\0\0\0\x10moov", ''], ['"', '"'], ['> ', ' <']][
            $random->getInt(0, 5)
        ];
        $depth = $random->getInt(100, 5_000);

        return substr_replace($input, str_repeat($open, $depth) . str_repeat($close, $depth), $random->getInt(0, strlen($input)), 0);
    }
}
