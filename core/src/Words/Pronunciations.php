<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

use Cartella\Core\Process;

/**
 * How words are pronounced, for a recogniser: from its own dictionary, and for what that lacks from a speech synthesiser, whose
 * phonetic letters (IPA) become those of the dictionary (ARPABET).
 */
final class Pronunciations
{
    /** Longest first where one begins another. */
    private const PHONES = [
        'tʃ' => 'CH',
        'dʒ' => 'JH',
        'eɪ' => 'EY',
        'aɪɚ' => 'AY ER',
        'aɪ' => 'AY',
        'ɔɪ' => 'OY',
        'aʊ' => 'AW',
        'oʊ' => 'OW',
        'əʊ' => 'OW',
        'oɹ' => 'AO R',
        'ɔɹ' => 'AO R',
        'ɑɹ' => 'AA R',
        'ɛɹ' => 'EH R',
        'eɹ' => 'EH R',
        'ɪɹ' => 'IH R',
        'ʊɹ' => 'UH R',
        'ɜɹ' => 'ER',
        'n̩' => 'AH N',
        'l̩' => 'AH L',
        'm̩' => 'AH M',
        'iə' => 'IY AH',
        'ɪə' => 'IH R',
        'eə' => 'EH R',
        'ʊə' => 'UH R',
        'i' => 'IY',
        'ɪ' => 'IH',
        'ᵻ' => 'IH',
        'ɛ' => 'EH',
        'e' => 'EH',
        'æ' => 'AE',
        'a' => 'AE',
        'ɑ' => 'AA',
        'ɒ' => 'AA',
        'ɔ' => 'AO',
        'o' => 'OW',
        'ʊ' => 'UH',
        'u' => 'UW',
        'ʉ' => 'UW',
        'ʌ' => 'AH',
        'ə' => 'AH',
        'ɐ' => 'AH',
        'ɜ' => 'ER',
        'ɝ' => 'ER',
        'ɚ' => 'ER',
        'y' => 'UW',
        'ø' => 'ER',
        'œ' => 'ER',
        'p' => 'P',
        'b' => 'B',
        't' => 'T',
        'd' => 'D',
        'k' => 'K',
        'ɡ' => 'G',
        'g' => 'G',
        'f' => 'F',
        'v' => 'V',
        'θ' => 'TH',
        'ð' => 'DH',
        's' => 'S',
        'z' => 'Z',
        'ʃ' => 'SH',
        'ʒ' => 'ZH',
        'h' => 'HH',
        'ç' => 'HH',
        'x' => 'K',
        'm' => 'M',
        'n' => 'N',
        'ŋ' => 'NG',
        'ɲ' => 'N Y',
        'l' => 'L',
        'ɫ' => 'L',
        'ɬ' => 'L',
        'ɹ' => 'R',
        'r' => 'R',
        'ʁ' => 'R',
        'w' => 'W',
        'ʍ' => 'W',
        'j' => 'Y',
        'ɾ' => 'D',
        'ʔ' => 'T',
    ];

    private const LONGEST_WORD = 40;

    /**
     * @param  list<string>  $words  spoken words
     * @param  string  $dictionary  path of a dictionary: a word and its phones on each line, `word(2)` another way
     * @param  non-empty-list<string>  $voices  of the synthesiser, such as `en-us`: what the dictionary lacks is said as the
     *     first says it, and
     *     everything as the others do, too
     * @return array<string, non-empty-list<string>> the ways in which each is said; what nobody knows is left out
     */
    public static function of(array $words, string $dictionary, array $voices): array
    {
        $wanted = array_fill_keys($words, true);
        $found = [];
        $file = @fopen($dictionary, 'rb');
        while ($file !== false && ($line = fgets($file, 1024)) !== false) {
            $space = strpos($line, ' ');
            if ($space === false) {
                continue;
            }
            $word = substr($line, 0, $space);
            $bare = str_ends_with($word, ')') ? (string) strstr($word, '(', true) : $word;
            if (isset($wanted[$bare])) {
                $found[$bare][] = trim(substr($line, $space + 1));
            }
        }
        if ($file !== false) {
            fclose($file);
        }
        $lacking = array_values(
            array_filter(
                array_map(strval(...), array_keys($wanted)),
                static fn(string $word): bool => !isset($found[$word]) &&
                    preg_match("/\A[\p{L}\p{M}']{1," . self::LONGEST_WORD . '}\z/u', $word) === 1,
            ),
        );

        $found += self::synthesised($lacking, $voices[0]);
        foreach (array_slice($voices, 1) as $voice) {
            foreach (self::synthesised(array_map(strval(...), array_keys($found)), $voice) as $word => $ways) {
                $found[$word] = array_values(array_unique([...$found[$word], ...$ways]));
            }
        }

        return $found;
    }

    /** The phones of a word in phonetic letters; empty where it has none that are known. */
    public static function arpabet(string $ipa): string
    {
        $rest = (string) preg_replace('/[ˈˌːˑ\s_ʲ\x{0303}\x{0361}\x{200d}]/u', '', $ipa);
        $phones = [];
        while ($rest !== '') {
            foreach ([3, 2, 1] as $length) {
                $part = mb_substr($rest, 0, $length);
                if (isset(self::PHONES[$part])) {
                    $phones[] = self::PHONES[$part];
                    break;
                }
            }
            $rest = mb_substr($rest, isset(self::PHONES[$part]) ? mb_strlen($part) : 1);
        }

        return implode(' ', $phones);
    }

    /**
     * @param  list<string>  $words
     * @return array<string, non-empty-list<string>>
     */
    private static function synthesised(array $words, string $voice): array
    {
        $said = [];
        foreach (array_chunk($words, 200) as $chunk) {
            // One word a line: the synthesiser answers a line for each.
            $run = Process::run(
                [
                    'espeak-ng',
                    '-q',
                    '--ipa',
                    '-v',
                    $voice,
                    '--',
                    implode("\n", array_map(static fn(string $word): string => "$word.", $chunk)),
                ],
                null,
                60,
            );
            $lines =
                $run['status'] === 0
                    ? array_values(array_filter(explode("\n", $run['output']), static fn(string $line): bool => trim($line) !== ''))
                    : [];
            if (count($lines) !== count($chunk)) {
                $lines = [];
                foreach ($chunk as $word) {
                    $one = Process::run(['espeak-ng', '-q', '--ipa', '-v', $voice, '--', $word], null, 10);
                    $lines[] = $one['status'] === 0 ? $one['output'] : '';
                }
            }
            foreach ($chunk as $index => $word) {
                $phones = self::arpabet($lines[$index]);
                if ($phones !== '') {
                    $said[$word] = [$phones];
                }
            }
        }

        return $said;
    }
}
