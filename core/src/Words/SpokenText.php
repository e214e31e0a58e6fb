<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

/**
 * How written text is said, and how two spellings of a word are compared: the one place that takes words apart.
 *
 * English numbers are said as `twelve`, `one hundred and five`, years as `nineteen forty`.
 */
final class SpokenText
{
    private const ONES = [
        ...['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve', 'thirteen'],
        ...['fourteen', 'fifteen', 'sixteen', 'seventeen', 'eighteen', 'nineteen'],
    ];

    private const TENS = ['', '', 'twenty', 'thirty', 'forty', 'fifty', 'sixty', 'seventy', 'eighty', 'ninety'];

    private const SHORT = [
        'mr' => 'mister',
        'mrs' => 'missus',
        'ms' => 'miz',
        'dr' => 'doctor',
        'st' => 'saint',
        'vs' => 'versus',
        'etc' => 'et cetera',
        'ok' => 'okay',
        '&' => 'and',
        '%' => 'percent',
        '+' => 'plus',
    ];

    /**
     * The words of a text as they are written, each with its punctuation; signs that stand alone are none.
     *
     * @return list<string>
     */
    public static function written(string $text): array
    {
        $words = [];
        foreach (
            preg_split('/[\s\x{00A0}]+|(?<=\p{L})(?:\x{2014}|--)(?=\p{L})/u', mb_scrub($text), -1, PREG_SPLIT_NO_EMPTY) ?: []
            as $piece
        ) {
            if (preg_match('/[\p{L}\p{N}&%]/u', $piece) === 1) {
                $words[] = mb_substr($piece, 0, Word::LONGEST);
            }
        }

        return $words;
    }

    /** What of a word counts when it is compared or looked for: small letters, without the signs around it. */
    public static function key(string $word): string
    {
        $plain = str_replace(['’', '‘', 'ʼ'], "'", mb_strtolower($word));

        return (string) preg_replace('/\A[^\p{L}\p{N}&%]+|[^\p{L}\p{N}&%]+\z/u', '', $plain);
    }

    /**
     * What is said for a written word.
     *
     * @return list<string> one entry a spoken word, in small letters
     */
    public static function spoken(string $word): array
    {
        $key = self::key($word);
        if (isset(self::SHORT[$key])) {
            return explode(' ', self::SHORT[$key]);
        }
        $said = [];
        // A year, a count and a letter behind it, and what a hyphen or a stroke joins, are said one after the other.
        preg_match_all("/\d[\d,]*(?:\.\d+)?(?:st|nd|rd|th)?|[\p{L}\p{M}](?:[\p{L}\p{M}]|'(?=[\p{L}\p{M}]))*|[&%+]/u", $key, $parts);
        foreach ($parts[0] as $part) {
            if (preg_match('/\A\d/', $part) === 1) {
                array_push($said, ...self::numeral($part));
            } else {
                array_push($said, ...explode(' ', self::SHORT[$part] ?? $part));
            }
        }

        return $said;
    }

    /**
     * A whole number in words; digit by digit from a million on.
     *
     * @return list<string>
     */
    public static function number(int $number): array
    {
        return match (true) {
            $number < 20 => [self::ONES[max(0, $number)]],
            $number < 100 => [self::TENS[intdiv($number, 10)], ...$number % 10 === 0 ? [] : [self::ONES[$number % 10]]],
            $number < 1000 => [
                self::ONES[intdiv($number, 100)],
                'hundred',
                ...$number % 100 === 0 ? [] : ['and', ...self::number($number % 100)],
            ],
            $number < 1_000_000 => [
                ...self::number(intdiv($number, 1000)),
                'thousand',
                ...$number % 1000 === 0 ? [] : self::number($number % 1000),
            ],
            default => self::digits((string) $number),
        };
    }

    /** @return list<string> each digit by itself, as slates are called */
    public static function digits(string $digits): array
    {
        return array_map(static fn(string $digit): string => self::ONES[(int) $digit], str_split($digits));
    }

    /** @return list<string> */
    private static function numeral(string $text): array
    {
        $plain = str_replace(',', '', (string) preg_replace('/(?:st|nd|rd|th)\z/', '', $text));
        [$whole, $fraction] = [...explode('.', $plain, 2), ''];
        if (strlen($whole) > 9) {
            return self::digits(substr($whole, 0, 40));
        }
        $value = (int) $whole;
        $isYear = $plain === $text && strlen($whole) === 4 && $value >= 1100 && $value < 2000 && $value % 100 >= 10;
        $said = $isYear ? [...self::number(intdiv($value, 100)), ...self::number($value % 100)] : self::number($value);

        return $fraction === '' ? $said : [...$said, 'point', ...self::digits(substr($fraction, 0, 20))];
    }

    /**
     * How alike two keys are: 1 for the same, 0 for nothing in common; letters that would have to change.
     */
    public static function likeness(string $x, string $y): float
    {
        if ($x === $y) {
            return 1.0;
        }
        $longest = max(strlen($x), strlen($y));

        return $longest === 0 || $longest > 255 ? 0.0 : 1 - levenshtein($x, $y) / $longest;
    }
}
