<?php

declare(strict_types=1);

namespace Cartella\Core\Log;

use Cartella\Core\Fields\FieldType;
use Cartella\Core\Fields\TakeFields;

/** Which column of a foreign table is what: guessed from the words of its heading, for a person to correct. */
final class NoteColumns
{
    /** What a column can be that is no field of the take, and the headings that people give it, in small letters without points. */
    private const PLACES = [
        'slate' => ['slate', 'sl', 'slate no', 'slate number', 'slate/take', 'setup/take', 'shot/take'],
        'scene' => ['scene', 'sc', 'scn', 'scene no', 'scene number', 'szene'],
        'setup' => ['setup', 'set-up', 'shot', 'setup no', 'set up', 'einstellung'],
        'take' => ['take', 'tk', 'take no', 't', 'takes'],
        'day' => ['day', 'date', 'shoot day', 'shooting day', 'datum', 'tag'],
        'time' => ['timecode', 'tc', 'tc in', 'start', 'start tc', 'time', 'in', 'begin'],
        'clip' => ['clip', 'clip name', 'file', 'filename', 'file name', 'name', 'sound file', 'roll/clip'],
        'marks' => ['marks', 'flags', 'mos', 'type', 'special', 'sync', 'sound'],
    ];

    /** A heading row names at least this many columns. */
    private const ENOUGH = 2;

    /** Rows from the top among which the heading is looked for; titles and empty rows stand before it. */
    public const LOOK_AT = 20;

    /**
     * All that a column can be: which take a row is of, and the fields that a source can speak of.
     *
     * @return array<string, list<string>> headings by target
     */
    public static function targets(?TakeFields $fields = null): array
    {
        $fields ??= TakeFields::standard();
        $targets = self::PLACES;
        foreach ($fields->said() as $key) {
            $field = $fields->get($key);
            // Marks share a column of their own.
            if ($field !== null && ($field->type !== FieldType::YesNo || $field->isOwn())) {
                $targets[$key] = $field->headings;
            }
        }

        return $targets;
    }

    /**
     * @param  list<list<string>>  $rows  the first rows of the table
     * @return array{heading: int, columns: array<int, string>} the heading row from 0, −1 where there is none, and what each column is
     */
    public static function guess(array $rows, ?TakeFields $fields = null): array
    {
        $best = ['heading' => -1, 'columns' => []];
        foreach (array_slice($rows, 0, self::LOOK_AT) as $at => $row) {
            $columns = self::of($row, $fields);
            if (count($columns) >= self::ENOUGH && count($columns) > count($best['columns'])) {
                $best = ['heading' => $at, 'columns' => $columns];
            }
        }

        return $best;
    }

    /**
     * @param  list<string>  $heading
     * @return array<int, string> by column; what is not recognised is left out, and nothing stands in it twice
     */
    public static function of(array $heading, ?TakeFields $fields = null): array
    {
        $targets = self::targets($fields);
        $columns = [];
        foreach ($heading as $at => $cell) {
            $word = trim((string) preg_replace('/[\s.:#]+/u', ' ', mb_strtolower($cell)));
            foreach ($targets as $target => $spellings) {
                if (in_array($word, $spellings, true) && !in_array($target, $columns, true)) {
                    $columns[$at] = $target;
                    break;
                }
            }
        }

        return $columns;
    }

    /**
     * The cells of a row by what they are; two columns of one kind, such as two for notes, add up.
     *
     * @param  list<string>  $cells
     * @param  array<int|string, string>  $columns
     * @return array<string, string>
     */
    public static function sorted(array $cells, array $columns): array
    {
        $sorted = [];
        foreach ($columns as $at => $target) {
            $sorted[$target] = implode(
                '. ',
                array_filter([$sorted[$target] ?? '', $cells[(int) $at] ?? ''], static fn(string $text): bool => $text !== ''),
            );
        }

        return $sorted;
    }

    /** A column as spreadsheets name it: A, B, … Z, AA; from 0. */
    public static function letters(int $at): string
    {
        return ($at >= 26 ? self::letters(intdiv($at, 26) - 1) : '') . chr(65 + ($at % 26));
    }

    /**
     * Text that is the same for tables of one layout, so that its mapping is found again.
     *
     * @param  list<string>  $heading
     */
    public static function signature(array $heading): string
    {
        return hash('xxh128', implode("\x1F", array_map(static fn(string $cell): string => mb_strtolower(trim($cell)), $heading)));
    }
}
