<?php

declare(strict_types=1);

namespace App\Domain\Log\ScriptNotes;

use App\Models\ScriptNoteFile;
use App\Support\Folders;
use Cartella\Core\Exchange\CsvWriter;

/**
 * The cells of a file of notes that were left out, all of them, beside the file: a line of JSON each, so that thousands
 * cost no memory.
 *
 * @phpstan-type Fault array{row: int, column: string, what: string, why: string}
 */
final class NoteFaults
{
    /** @var resource|null */
    private $to = null;

    private function __construct(private readonly string $path) {}

    public static function of(ScriptNoteFile $file): self
    {
        return new self(self::pathOf($file->path));
    }

    /** @param  string  $path  of the notes, below `var` */
    public static function pathOf(string $path): string
    {
        return Folders::var($path) . '.faults';
    }

    public function begin(): void
    {
        $this->to = fopen($this->path, 'wb') ?: throw new \RuntimeException("$this->path cannot be written.");
    }

    /** @param  Fault  $fault */
    public function add(array $fault): void
    {
        if ($this->to !== null) {
            fwrite($this->to, json_encode($fault, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE) . "\n");
        }
    }

    public function end(): void
    {
        if ($this->to !== null) {
            fclose($this->to);
            $this->to = null;
        }
    }

    /** @return list<Fault> */
    public function page(int $from, int $count): array
    {
        $page = [];
        foreach ($this->all() as $at => $fault) {
            if ($at >= $from + $count) {
                break;
            }
            if ($at >= $from) {
                $page[] = $fault;
            }
        }

        return $page;
    }

    public function csv(): string
    {
        $rows = function (): \Generator {
            foreach ($this->all() as $fault) {
                yield [$fault['column'] . $fault['row'], $fault['what'], $fault['why']];
            }
        };

        return CsvWriter::write(['Cell', 'What it should be', 'Why it is left out'], $rows());
    }

    /** @return \Generator<int, Fault> */
    private function all(): \Generator
    {
        $from = is_file($this->path) ? fopen($this->path, 'rb') : false;
        for ($at = 0; $from !== false && ($line = fgets($from)) !== false; $at++) {
            yield $at => json_decode($line, true, 4, JSON_THROW_ON_ERROR);
        }
        $from === false || fclose($from);
    }
}
