<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange;

/** Writes tables as CSV (RFC 4180): UTF-8, CR LF, and no cell that a spreadsheet would run as a formula. */
final class CsvWriter
{
    /**
     * @param  list<string>  $heading
     * @param  iterable<list<scalar|null>>  $rows
     */
    public static function write(array $heading, iterable $rows): string
    {
        $text = self::line($heading);
        foreach ($rows as $row) {
            $text .= self::line($row);
        }

        return $text;
    }

    /** Text that begins with `= + - @`, a tab or a return gets an apostrophe before it; numbers stay as they are. */
    public static function cell(string|int|float|bool|null $value): string
    {
        $text = match (true) {
            $value === null => '',
            is_bool($value) => $value ? 'yes' : 'no',
            default => (string) $value,
        };

        return is_string($value) && $text !== '' && strpbrk($text[0], "=+-@\t\r") !== false ? "'" . $text : $text;
    }

    /** @param  list<scalar|null>  $cells */
    private static function line(array $cells): string
    {
        return implode(
            ',',
            array_map(static function (string|int|float|bool|null $value): string {
                $cell = self::cell($value);

                return strpbrk($cell, ",\"\r\n") === false ? $cell : '"' . str_replace('"', '""', $cell) . '"';
            }, $cells),
        ) . "\r\n";
    }
}
