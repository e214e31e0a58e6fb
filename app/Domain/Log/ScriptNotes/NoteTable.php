<?php

declare(strict_types=1);

namespace App\Domain\Log\ScriptNotes;

use App\Support\Problem;
use Cartella\Core\Xml;
use OpenSpout\Common\Entity\Cell;
use OpenSpout\Common\Exception\SpoutException;
use OpenSpout\Reader\Common\Creator\ReaderEntityFactory;
use OpenSpout\Reader\ReaderInterface;

/**
 * A foreign table as rows of text: CSV, TSV or XLSX, streamed, so that its length costs no memory.
 *
 * Text that is not UTF-8 is read as UTF-16 where it says so, else as Windows-1252. Dates come as `2026-10-05`, times of
 * day as `10:42:17`.
 */
final class NoteTable
{
    /** Bytes of a part in which a document type would stand: before its first element. */
    private const HEAD = 1 << 16;

    private const UNPACKED_LIMIT = 1_000_000_000;

    private const PARTS_LIMIT = 2_000;

    private const SHEETS_LIMIT = 100;

    private const COLUMN_LIMIT = 100;

    private const CELL_LIMIT = 5_000;

    /** Bytes, an even number, by which text is read. */
    private const SAMPLE = 262_144;

    private function __construct(private readonly string $path, private readonly bool $isWorkbook) {}

    /** Whether it is packed, and has to be unpacked before anything can be said of it. */
    public static function isWorkbook(string $path): bool
    {
        return str_starts_with((string) file_get_contents($path, length: 4), "PK\x03\x04");
    }

    /** @throws Problem if the file is neither a table of text nor a workbook, or unpacks to too much */
    public static function open(string $path): self
    {
        $head = (string) file_get_contents($path, length: 4096);
        if (self::isWorkbook($path)) {
            self::checkWorkbook($path);

            return new self($path, true);
        }
        if ($head === '' || (str_contains($head, "\0") && !preg_match('/\A(?:\xFF\xFE|\xFE\xFF)/', $head))) {
            throw Problem::refused('notes.kind', $head === '' ? 'The file is empty.' : 'That is no table.', 'Bring CSV, TSV or XLSX.');
        }

        return new self($path, false);
    }

    /**
     * @param  int  $sheet  of a workbook, from 0
     * @return \Generator<int, list<string>> rows by their number from 1, empty ones too
     *
     * @throws Problem if the file cannot be read on
     */
    public function rows(int $sheet = 0): \Generator
    {
        $text = $this->isWorkbook ? null : $this->decoded();
        $reader = $text === null ? self::workbookReader() : self::textReader($text);
        try {
            $reader->open($text === null ? $this->path : stream_get_meta_data($text)['uri']);
            foreach ($reader->getSheetIterator() as $one) {
                if ($this->isWorkbook && $one->getIndex() !== $sheet) {
                    continue;
                }
                $number = 0;
                foreach ($one->getRowIterator() as $row) {
                    yield ++$number => array_map(self::text(...), array_slice($row->getCells(), 0, self::COLUMN_LIMIT));
                }
                break;
            }
        } catch (SpoutException | \ErrorException $trouble) {
            // of a broken part the reader only warns
            throw self::unreadable($trouble);
        } finally {
            $reader->close();
        }
    }

    /** @return list<string> the names of a workbook's sheets, in their order; of text none */
    public function sheets(): array
    {
        if (!$this->isWorkbook) {
            return [];
        }
        $reader = self::workbookReader();
        $names = [];
        try {
            $reader->open($this->path);
            foreach ($reader->getSheetIterator() as $sheet) {
                $names[] = mb_substr(mb_scrub($sheet->getName()), 0, 60);
            }
        } catch (SpoutException | \ErrorException $trouble) {
            throw self::unreadable($trouble);
        } finally {
            $reader->close();
        }

        return array_slice($names, 0, self::SHEETS_LIMIT);
    }

    /** @return list<list<string>> the first rows */
    public function head(int $count, int $sheet = 0): array
    {
        $rows = [];
        foreach ($this->rows($sheet) as $number => $row) {
            if ($number > $count) {
                break;
            }
            $rows[] = $row;
        }

        return $rows;
    }

    private static function workbookReader(): ReaderInterface
    {
        $reader = ReaderEntityFactory::createXLSXReader();
        $reader->setShouldFormatDates(false);
        $reader->setShouldPreserveEmptyRows(true);

        return $reader;
    }

    /** @param  resource  $text as UTF-8 */
    private static function textReader($text): ReaderInterface
    {
        $reader = ReaderEntityFactory::createCSVReader();
        $reader->setFieldDelimiter(self::delimiter((string) stream_get_contents($text, self::SAMPLE, 0)));
        $reader->setShouldPreserveEmptyRows(true);

        return $reader;
    }

    /**
     * The text as UTF-8 in a file that goes when it is closed. What is no letter in its encoding is a question mark:
     * one bad byte costs a letter, not the notes.
     *
     * @return resource
     */
    private function decoded()
    {
        $sample = (string) file_get_contents($this->path, length: self::SAMPLE);
        $encoding = match (true) {
            str_starts_with($sample, "\xFF\xFE") => 'UTF-16LE',
            str_starts_with($sample, "\xFE\xFF") => 'UTF-16BE',
            // The sample may end within a letter.
            mb_check_encoding(mb_strcut($sample, 0, max(0, strlen($sample) - 4), 'UTF-8'), 'UTF-8') => 'UTF-8',
            default => 'Windows-1252',
        };
        $from = fopen($this->path, 'rb');
        $to = tmpfile();
        if ($from === false || $to === false) {
            throw new \RuntimeException('The notes cannot be read, or there is no room for them as UTF-8.');
        }
        if (str_starts_with($encoding, 'UTF-16')) {
            fseek($from, 2);
        }
        while (($piece = (string) fread($from, self::SAMPLE)) !== '') {
            $last = match ($encoding) {
                'UTF-16LE' => substr($piece, -1),
                'UTF-16BE' => substr($piece, -2, 1),
                default => '',
            };
            // The first half of a pair of units, which the piece would part from the second.
            if ($last >= "\xD8" && $last <= "\xDB") {
                $piece .= fread($from, 2);
            }
            fwrite($to, $encoding === 'UTF-8' ? $piece : (string) mb_convert_encoding($piece, 'UTF-8', $encoding));
        }
        fclose($from);

        return $to;
    }

    /** The one that cuts most of the first lines into the same number of cells, two or more. */
    private static function delimiter(string $text): string
    {
        $lines = array_slice(array_filter(explode("\n", $text), static fn(string $line): bool => trim($line) !== ''), 0, 30);
        $best = [',', 0];
        foreach ([',', ';', "\t", '|'] as $delimiter) {
            $cells = array_count_values(
                array_filter(
                    array_map(static fn(string $line): int => count(str_getcsv($line, $delimiter, '"', '')), $lines),
                    static fn(int $count): bool => $count > 1,
                ),
            );
            $fit = 0;
            foreach ($cells as $count => $times) {
                $fit = max($fit, $times * min(20, $count));
            }
            if ($fit > $best[1]) {
                $best = [$delimiter, $fit];
            }
        }

        return $best[0];
    }

    private static function text(Cell $cell): string
    {
        $value = $cell->getValue();
        $text = match (true) {
            $value instanceof \DateTimeInterface => (int) $value->format('Y') < 1905
                ? $value->format('H:i:s')
                : $value->format($value->format('His') === '000000' ? 'Y-m-d' : 'Y-m-d H:i:s'),
            is_bool($value) => $value ? 'yes' : 'no',
            is_float($value) => rtrim(rtrim(sprintf('%.6F', $value), '0'), '.'),
            default => (string) $value,
        };

        return mb_substr(mb_scrub(trim($text)), 0, self::CELL_LIMIT);
    }

    private static function checkWorkbook(string $path): void
    {
        $zip = new \ZipArchive();
        if ($zip->open($path, \ZipArchive::RDONLY) !== true || $zip->locateName('xl/workbook.xml') === false) {
            throw Problem::refused('notes.kind', 'That is no workbook.', 'Bring CSV, TSV or XLSX.');
        }
        $size = 0;
        for ($part = 0; $part < min($zip->numFiles, self::PARTS_LIMIT + 1); $part++) {
            $size += self::unpack($zip, $part, self::UNPACKED_LIMIT - $size);
            if ($size > self::UNPACKED_LIMIT) {
                break;
            }
        }
        $parts = $zip->numFiles;
        $zip->close();
        if ($size > self::UNPACKED_LIMIT || $parts > self::PARTS_LIMIT) {
            throw Problem::refused('notes.large', 'The workbook unpacks to more than a gigabyte.', 'Save the one sheet as CSV.');
        }
    }

    /**
     * Unpacks one part for its length alone: what a workbook says of it may be a lie.
     *
     * @return int bytes, more than $most as soon as it is that many
     */
    private static function unpack(\ZipArchive $zip, int $part, int $most): int
    {
        $stream = $zip->getStreamIndex($part);
        if ($stream === false) {
            throw self::damaged();
        }
        $bytes = 0;
        $head = '';
        while (!feof($stream) && $bytes <= $most) {
            $piece = @fread($stream, 1 << 16);
            if ($piece === false) {
                throw self::damaged();
            }
            $head .= strlen($head) < self::HEAD ? $piece : '';
            $bytes += strlen($piece);
        }
        fclose($stream);
        if (preg_match('/\.(xml|rels)\z/i', (string) $zip->getNameIndex($part)) === 1 && Xml::declaresDocumentType($head)) {
            throw Problem::refused('notes.hostile', 'The workbook declares XML entities.', 'Save it again from a spreadsheet, or as CSV.');
        }

        return $bytes;
    }

    private static function unreadable(\Throwable $trouble): Problem
    {
        return Problem::refused('notes.broken', 'The file cannot be read as a table.', 'Save it again as XLSX or CSV.', [
            'cause' => mb_scrub($trouble->getMessage()),
        ]);
    }

    private static function damaged(): Problem
    {
        return Problem::refused('notes.kind', 'The workbook is damaged.', 'Save it again from a spreadsheet, or as CSV.');
    }
}
