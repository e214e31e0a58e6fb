<?php

declare(strict_types=1);

namespace Cartella\Core\Log;

/** Shot sizes from the widest to the closest, in the ways they are written; any other word is a size of its own. */
final class ShotSize
{
    /** Name to the spellings that mean it, in small letters. */
    private const SIZES = [
        'Very wide' => ['very wide', 'extreme wide', 'ews', 'els', 'vws', 'vw'],
        'Wide' => ['wide', 'ws', 'long', 'ls', 'wide shot', 'long shot', 'full', 'fs'],
        'Medium wide' => ['medium wide', 'mws', 'mls', 'medium long', 'med wide'],
        'Medium' => ['medium', 'ms', 'med', 'mid', 'medium shot', 'mid shot'],
        'Two' => ['two', '2s', 'two shot', '2-shot', 'two-shot'],
        'Over' => ['over', 'ots', 'o/s', 'over shoulder', 'over the shoulder'],
        'Medium close' => ['medium close', 'mcu', 'med close', 'medium close-up'],
        'Close' => ['close', 'cu', 'close-up', 'close up', 'cl'],
        'Very close' => ['very close', 'big close', 'bcu', 'ecu', 'xcu', 'extreme close', 'vcu'],
        'Insert' => ['insert', 'ins'],
    ];

    /** The size that a cell or a typed word means; null when it is none of the usual ones. */
    public static function of(string $text): ?string
    {
        $word = trim(mb_strtolower((string) preg_replace('/\s+/u', ' ', $text)), " \t.");
        foreach (self::SIZES as $name => $spellings) {
            if (in_array($word, $spellings, true)) {
                return $name;
            }
        }

        return null;
    }

    /** Sorts the widest first: its place from 0; sizes that are not known come last. */
    public static function width(string $size): int
    {
        static $known = [];
        if (count($known) > 1000) {
            $known = [];
        }

        return $known[$size] ??= (static function () use ($size): int {
            $at = array_search(self::of($size) ?? $size, array_keys(self::SIZES), true);

            return $at === false ? count(self::SIZES) : $at;
        })();
    }

    /** @return list<string> */
    public static function names(): array
    {
        return array_keys(self::SIZES);
    }
}
