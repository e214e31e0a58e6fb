<?php

declare(strict_types=1);

namespace Cartella\Core\Log;

use Cartella\Core\Slate\SetupName;

/**
 * The scenes of a script in Fountain (https://fountain.io/syntax) or plain text: number, heading, who speaks, length.
 *
 * Lengths are eighths of a page of 55 lines, each scene at least one; action wraps at 61 letters, speech at 35. Scenes
 * without a number of their own count on from the one before. Notes, boneyard, title page and sections are no scenes.
 */
final class Script
{
    private const PAGE_LINES = 55;

    private const ACTION_WIDTH = 61;

    private const SPEECH_WIDTH = 35;

    private const SCENE_LIMIT = 2000;

    /** Letters of one scene that are kept. */
    private const TEXT_LIMIT = 60_000;

    private const HEADING =
        '/\A(?:(?<before>[A-Z]?\d{1,4}[A-Za-z]{0,2})[.)]?\s+)?(?<text>' .
        '(?:INT|EXT|EST|INT\.?\/EXT|EXT\.?\/INT|I\.?\/E)[. ' .
        ']\s*\S.*?)(?:\s+#(?<number>[^#]{1,12})#|\s{2,}(?<after>[A-Z]?\d{1,4}[A-Za-z]{0,2})\.?)?\z/i';

    private const FORCED = '/\A\.(?=[^.])(?<text>\S.*?)(?:\s*#(?<number>[^#]{1,12})#)?\z/';

    /**
     * @return list<array{scene: string, heading: string, characters: list<string>, eighths: int,
     *     line: int, text: string}> in the script's order; `line` from 1, `text` below the heading as it stands, without notes
     */
    public static function scenes(string $text): array
    {
        $lines = explode("\n", self::cleaned($text));
        $scenes = [];
        $used = 0;
        $last = 0;
        $speaking = false;
        foreach ($lines as $at => $raw) {
            $line = trim($raw);
            $isBlank = $line === '';
            $before = trim($lines[$at - 1] ?? '');
            $after = trim($lines[$at + 1] ?? '');
            if (
                !$isBlank &&
                $before === '' &&
                (preg_match(self::FORCED, $line, $part) === 1 || preg_match(self::HEADING, $line, $part) === 1)
            ) {
                if (count($scenes) >= self::SCENE_LIMIT) {
                    break;
                }
                self::close($scenes, $used);
                $number = trim(
                    ($part['number'] ?? '') !== ''
                        ? $part['number']
                        : (($part['before'] ?? '') !== ''
                            ? $part['before']
                            : $part['after'] ?? ''),
                );
                $parsed = SetupName::parse($number);
                $number = $parsed?->label() ?? ($number !== '' ? mb_substr($number, 0, 20) : (string) ($last + 1));
                $last = (int) preg_replace('/\D/', '', $number) ?: $last + 1;
                $scenes[] = [
                    'scene' => $number,
                    'heading' => mb_substr(trim($part['text']), 0, 120),
                    'characters' => [],
                    'eighths' => 0,
                    'line' => $at + 1,
                    'text' => '',
                ];
                $used = 2;
                $speaking = false;

                continue;
            }
            if ($scenes === []) {
                continue;
            }
            $scenes[count($scenes) - 1]['text'] .= rtrim($raw) . "\n";
            if ($isBlank) {
                $used++;
                $speaking = false;

                continue;
            }
            if ($before === '' && $after !== '' && ($who = self::speaker($line)) !== null) {
                $speaking = true;
                $open = count($scenes) - 1;
                if (!in_array($who, $scenes[$open]['characters'], true)) {
                    $scenes[$open]['characters'][] = $who;
                }
            }
            $used += max(1, (int) ceil(mb_strlen($line) / ($speaking ? self::SPEECH_WIDTH : self::ACTION_WIDTH)));
        }
        self::close($scenes, $used);

        return $scenes;
    }

    /**
     * Who says what in the text of a scene, in its order: speeches under a name, without directions in brackets.
     *
     * @return list<array{character: string, text: string}>
     */
    public static function speeches(string $text): array
    {
        $lines = explode("\n", self::cleaned($text));
        $speeches = [];
        $open = null;
        foreach ($lines as $at => $raw) {
            $line = trim($raw);
            if ($line === '') {
                $open = null;
            } elseif ($open !== null) {
                $said = trim((string) preg_replace('/\A\([^()]*\)\z|\*+|_+|\A~/u', '', $line));
                $speeches[$open]['text'] = trim($speeches[$open]['text'] . ' ' . $said);
            } elseif (trim($lines[$at - 1] ?? '') === '' && trim($lines[$at + 1] ?? '') !== '' && ($who = self::speaker($line)) !== null) {
                $speeches[] = ['character' => $who, 'text' => ''];
                $open = count($speeches) - 1;
            }
        }

        return array_values(array_filter($speeches, static fn(array $one): bool => $one['text'] !== ''));
    }

    /** Pages as scripts count them: `2 3/8`, `5/8`. */
    public static function pages(int $eighths): string
    {
        $rest = $eighths % 8 === 0 ? '' : $eighths % 8 . '/8';

        return trim((intdiv($eighths, 8) === 0 ? '' : (string) intdiv($eighths, 8)) . ' ' . $rest) ?: '0';
    }

    /** @param  list<array{scene: string, heading: string, characters: list<string>, eighths: int, line: int, text: string}>  $scenes */
    private static function close(array &$scenes, int $lines): void
    {
        $last = array_pop($scenes);
        if ($last !== null) {
            $text = (string) preg_replace('/\n{3,}/', "\n\n", trim($last['text'], "\n"));
            $scenes[] =
                ['eighths' => max(1, (int) round(($lines * 8) / self::PAGE_LINES)), 'text' => mb_substr($text, 0, self::TEXT_LIMIT)] +
                $last;
        }
    }

    private static function speaker(string $line): ?string
    {
        if (preg_match('/\A@(.+)\z/u', $line, $part) === 1) {
            $name = $part[1];
        } elseif (
            preg_match('/\A\p{Lu}[\p{Lu}\d \'.-]{0,38}(?:\s*\([^)]*\))?\s*\^?\z/u', $line) === 1 &&
            !preg_match('/(?:TO|IN|OUT)[:.]\z/', $line)
        ) {
            $name = $line;
        } else {
            return null;
        }
        $name = trim((string) preg_replace('/\s*\([^)]*\)|\^/u', '', $name));

        return $name === '' ? null : mb_convert_case(mb_substr($name, 0, 40), MB_CASE_TITLE);
    }

    /** Boneyard and notes taken out, line by line as before, so that line numbers stay those of the file. */
    private static function cleaned(string $text): string
    {
        $text = str_replace(["\r\n", "\r"], "\n", (string) preg_replace('/\A\xEF\xBB\xBF/', '', $text));
        $text = mb_check_encoding($text, 'UTF-8') ? $text : mb_convert_encoding($text, 'UTF-8', 'Windows-1252');
        $blank = static fn(array $part): string => str_repeat("\n", substr_count($part[0], "\n"));

        return (string) preg_replace_callback('~/\*.*?\*/|\[\[.*?\]\]~s', $blank, $text);
    }
}
