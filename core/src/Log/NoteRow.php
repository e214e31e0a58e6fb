<?php

declare(strict_types=1);

namespace Cartella\Core\Log;

use Cartella\Core\Fields\FieldType;
use Cartella\Core\Fields\TakeFields;
use Cartella\Core\Fields\TakeStatus;
use Cartella\Core\Slate\Slate;
use Cartella\Core\Slate\SlateReader;
use Cartella\Core\Slate\SlateStyle;

/**
 * One row of somebody's script notes or report, cleaned: which takes it is of, and what it says of them.
 *
 * A row can be of several takes (`1/2`, `1-3`). Times are seconds of the day; dates are read day first, as Europe writes
 * them, or year first.
 */
final readonly class NoteRow
{
    private const TAKES_LIMIT = 20;

    /**
     * @param  list<Slate>  $slates  empty where the row names none
     * @param  int|string|null  $day  its number, or a date `2026-10-05`
     * @param  float|null  $seconds  since midnight, where the time has no frames
     * @param  string|null  $timecode  as written, where it has frames
     * @param  array<string, string|bool>  $fields  by the take's field names; only what the row says
     * @param  list<array{column: string, why: string}>  $problems  cells that were left out
     */
    private function __construct(
        public array $slates,
        public int|string|null $day,
        public ?float $seconds,
        public ?string $timecode,
        public ?string $clip,
        public array $fields,
        public array $problems,
    ) {}

    /**
     * @param  array<string, string>  $cells  text by what the column is ({@see NoteColumns::targets})
     * @param  array<string, string>  $above  the last scene, setup and day that were written, for cells left empty below them
     */
    public static function read(array $cells, SlateStyle $style, array &$above = [], ?TakeFields $known = null): ?self
    {
        $cells = array_map(static fn(string $cell): string => trim((string) preg_replace('/[\s\x{A0}]+/u', ' ', $cell)), $cells);
        if (array_filter($cells, static fn(string $cell): bool => $cell !== '') === []) {
            return null;
        }
        $problems = $fields = [];
        foreach (['day', 'scene', 'setup'] as $carried) {
            if (($cells[$carried] ?? '') !== '') {
                $above[$carried] = $cells[$carried];
                if ($carried === 'scene') {
                    unset($above['setup']);
                }
            } elseif (isset($cells[$carried], $above[$carried]) && ($cells['take'] ?? '') !== '') {
                $cells[$carried] = $above[$carried];
            }
        }
        $slates = self::slates($cells, $style, $fields, $problems);
        [$day, $problem] = self::day($cells['day'] ?? '');
        $problem === null || ($problems[] = ['column' => 'day', 'why' => $problem]);
        [$seconds, $timecode, $problem] = self::time($cells['time'] ?? '');
        $problem === null || ($problems[] = ['column' => 'time', 'why' => $problem]);
        foreach (($known ?? TakeFields::standard())->all() as $field) {
            if (($cells[$field->key] ?? '') === '' || !$field->isSaid || $field->type === FieldType::Status) {
                continue;
            }
            $said = $field->read($cells[$field->key]);
            if ($said === null) {
                $problems[] = [
                    'column' => $field->key,
                    'why' => sprintf('"%s" is no %s.', mb_substr($cells[$field->key], 0, 30), mb_strtolower($field->label)),
                ];
            } else {
                $fields[$field->key] = $said;
            }
        }
        foreach (['status', 'marks'] as $column) {
            foreach (preg_split('/\s*[,;+]\s*/', $cells[$column] ?? '') ?: [] as $word) {
                if ($word === '' || in_array(mb_strtolower($word), ['no', 'n', '-', '–', '0', 'sync'], true)) {
                    continue;
                }
                $mark =
                    $column === 'status' && in_array(mb_strtolower($word), ['x', 'yes', 'y', '✓', '*', '1', 'o', '●', '◯'], true)
                        ? ['status', TakeStatus::Circled->value]
                        : Marks::of($word);
                if ($mark === null) {
                    $problems[] = ['column' => $column, 'why' => sprintf('"%s" is no mark.', mb_substr($word, 0, 30))];
                } else {
                    $fields[$mark[0]] = $mark[1];
                }
            }
        }
        $clip = ($cells['clip'] ?? '') === '' ? null : $cells['clip'];

        return new self($slates, $day, $seconds, $timecode, $clip, $fields, $problems);
    }

    /**
     * @param  array<string, string>  $cells
     * @param  array<string, string|bool>  $fields
     * @param  list<array{column: string, why: string}>  $problems
     * @return list<Slate>
     */
    private static function slates(array $cells, SlateStyle $style, array &$fields, array &$problems): array
    {
        if (($cells['slate'] ?? '') !== '' && ($cells['take'] ?? '') === '') {
            $text = self::withoutRemark($cells['slate'], $fields);
            $slate = SlateReader::name(
                (string) preg_replace('/(?<=\d) (?=[A-Za-z]{1,2}\b(?! ?\d))| ?(?=[\/-])|(?<=[\/-]) /', '', $text),
                $style,
            );
            if (!$slate->isReadable()) {
                $problems[] = ['column' => 'slate', 'why' => sprintf('"%s" is not a slate.', mb_substr($cells['slate'], 0, 30))];
            }

            return $slate->isReadable() ? [$slate] : [];
        }
        if (($cells['take'] ?? '') === '') {
            return [];
        }
        $scene = str_replace(' ', '', $cells['scene'] ?? '');
        $setup = str_replace(' ', '', ($cells['setup'] ?? '') !== '' ? $cells['setup'] : $cells['slate'] ?? '');
        $setup = match (true) {
            $setup === '' => $scene,
            $style === SlateStyle::Letter && preg_match('/\A[A-Za-z]{1,2}\z/', $setup) === 1 => $scene . strtoupper($setup),
            default => $setup,
        };
        $slates = [];
        foreach (self::takes(self::withoutRemark($cells['take'], $fields)) ?? [] as [$take, $part, $isPickup]) {
            $slate = SlateReader::checked(
                $style === SlateStyle::Number && $scene !== '' ? $scene : null,
                $setup,
                (string) $take,
                null,
                $style,
                $part,
                $isPickup,
            );
            if ($slate === null) {
                $problems[] = ['column' => 'setup', 'why' => sprintf('"%s" is not a setup.', mb_substr($setup, 0, 30))];

                return [];
            }
            $slates[] = $slate;
            if ($isPickup) {
                $fields['is_pickup'] = true;
            }
        }
        if ($slates === []) {
            $isDate = preg_match('/\A\d{4}-\d{2}-\d{2}\z/', $cells['take']) === 1;
            $problems[] = [
                'column' => 'take',
                'why' => sprintf(
                    $isDate ? 'The spreadsheet has made the date %s of this take; write it as text.' : '"%s" is not a take.',
                    mb_substr($cells['take'], 0, 30),
                ),
            ];
        }

        return $slates;
    }

    /**
     * `T3`, `3a`, `3 PU`; `1/2`, `1, 2`, `1 & 2`, `1-3` for several.
     *
     * @return list<array{int, string, bool}>|null take, series letter, whether it is a pick-up
     */
    private static function takes(string $text): ?array
    {
        $text = (string) preg_replace('/\.0+\z/', '', $text);
        if (preg_match('/\A(?:take|tk|t)?\s?0*(\d{1,3})\s?[-–]\s?(?:take|tk|t)?\s?0*(\d{1,3})\z/iu', $text, $range) === 1) {
            return (int) $range[1] < (int) $range[2] && (int) $range[2] - (int) $range[1] < self::TAKES_LIMIT
                ? array_map(static fn(int $take): array => [$take, '', false], range((int) $range[1], (int) $range[2]))
                : null;
        }
        $takes = [];
        foreach (preg_split('/\s*(?:[\/,;&+]|\band\b)\s*/i', $text) ?: [] as $one) {
            if (
                preg_match('/\A(?:take|tk|t)?[ .]?0*(\d{1,3})([a-hj-np-z]?)\s?(p\/?u|pick-?up)?\z/i', $one, $part) !== 1 ||
                (int) $part[1] === 0 ||
                count($takes) >= self::TAKES_LIMIT
            ) {
                return null;
            }
            $takes[] = [(int) $part[1], strtolower($part[2]), ($part[3] ?? '') !== ''];
        }

        return $takes;
    }

    /**
     * `T3 (circled)`, `3*`: the mark beside a take goes to its own field.
     *
     * @param  array<string, string|bool>  $fields
     */
    private static function withoutRemark(string $text, array &$fields): string
    {
        if (preg_match('/\A(.*?)\s*(?:\(([^()]*)\)|\[([^\[\]]*)\]|(\*))\s*\z/u', $text, $part) === 1) {
            foreach (preg_split('/\s*[,;]\s*/', ($part[4] ?? '') === '*' ? 'circled' : $part[2] . ($part[3] ?? '')) ?: [] as $word) {
                $mark = Marks::of($word);
                if ($mark !== null) {
                    $fields[$mark[0]] = $mark[1];
                } elseif ($word !== '') {
                    $fields['notes'] = $word;
                }
            }

            return $part[1];
        }

        return $text;
    }

    /** @return array{int|string|null, string|null} number or date, and what is wrong */
    private static function day(string $text): array
    {
        if ($text === '') {
            return [null, null];
        }
        if (preg_match('/\A(?:shoot(?:ing)? ?)?(?:day|d|tag)?[ .]?(\d{1,3})(?:\s?(?:of|\/)\s?\d+)?\z/i', $text, $part) === 1) {
            return [(int) $part[1], null];
        }
        $date = match (true) {
            preg_match('/(?<![\d.])(?<y>\d{4})-(?<m>\d{1,2})-(?<d>\d{1,2})/', $text, $part) === 1,
            preg_match('/(?<!\d)(?<d>\d{1,2})[.\/-]\s?(?<m>\d{1,2})[.\/-]\s?(?<y>\d{4}|\d{2})(?!\d)/', $text, $part) === 1
                => $part,
            default => null,
        };
        if ($date === null) {
            return [null, sprintf('"%s" is neither a day nor a date.', mb_substr($text, 0, 30))];
        }
        $year = (int) $date['y'] + (strlen($date['y']) === 2 ? 2000 : 0);

        return checkdate((int) $date['m'], (int) $date['d'], $year)
            ? [sprintf('%04d-%02d-%02d', $year, $date['m'], $date['d']), null]
            : [null, sprintf('"%s" is no date; days come first.', mb_substr($text, 0, 30))];
    }

    /** @return array{float|null, string|null, string|null} seconds of the day, else a timecode, else what is wrong */
    private static function time(string $text): array
    {
        return match (true) {
            $text === '' => [null, null, null],
            preg_match('/\A\d{1,2}:\d{2}:\d{2}[:;.]\d{2,3}\z/', $text) === 1 => [null, $text, null],
            preg_match('/\A(\d{1,2}):(\d{2})(?::(\d{2}))?\z/', $text, $part) === 1 && (int) $part[1] < 24 && (int) $part[2] < 60 => [
                (float) ((int) $part[1] * 3600 + (int) $part[2] * 60 + (int) ($part[3] ?? 0)),
                null,
                null,
            ],
            preg_match('/\A\d{1,5}(?:[.,]\d{1,4})?\z/', $text) === 1 && (float) str_replace(',', '.', $text) < 86400 => [
                (float) str_replace(',', '.', $text),
                null,
                null,
            ],
            default => [null, null, sprintf('"%s" is not a time.', mb_substr($text, 0, 30))],
        };
    }
}
