<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

use App\Http\Shell\Answers\TaskAnswer;

/** A file of notes on its way into the log. */
final readonly class NoteFileAnswer
{
    /**
     * @param  array<string, string>  $columns
     * @param  list<list<string>>  $rows
     * @param  list<string>  $targets
     * @param  list<string>  $sheets  of a workbook, by name
     * @param  list<string>  $others  files of notes that this one may correct
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public int $heading,
        public array|object $columns,
        public bool $is_known,
        public array $rows,
        public ?NoteReportAnswer $report,
        public bool $applied,
        public ?TaskAnswer $task,
        public array $targets,
        public array $sheets,
        public int $sheet,
        public array $others,
    ) {}
}
