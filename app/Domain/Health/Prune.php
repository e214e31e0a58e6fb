<?php

declare(strict_types=1);

namespace App\Domain\Health;

use App\Domain\Cards\Imports;
use App\Domain\Log\ScriptNotes\NoteFaults;
use App\Models\ScriptNoteFile;
use App\Models\Upload;
use App\Support\Folders;
use App\Support\KeptAnswers;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;

/** Removes what nobody asks for any more, and keeps logs from growing without end. Nothing of anybody's work, and never the audit. */
final class Prune
{
    private const TASK_DAYS = 30;

    private const FAILED_JOB_DAYS = 30;

    private const NOTE_DAYS = 60;

    /** Files that somebody dropped and never finished sending; they lie where they came from still. */
    private const UPLOAD_DAYS = 30;

    private const EVENT_HOURS = 24;

    private const REPORT_HOURS = 24;

    /** Reels as files; they are written again from the footage. */
    private const EXPORT_DAYS = 14;

    /** Bytes from which on a log is put aside; three older ones are kept. */
    private const LOG_BYTES = 10 << 20;

    private const LOGS_KEPT = 3;

    /** Rows a statement: a long one would keep everybody waiting. */
    private const ROWS = 2000;

    /** @return array<string, int> what was removed */
    public function __invoke(): array
    {
        return [
            'events' => self::rows('events', 'created_at', now()->subHours(self::EVENT_HOURS)),
            'answers' => self::rows('kept_answers', 'created_at', now()->subHours(KeptAnswers::HOURS)),
            'entries' => self::rows('kept_entries', 'created_at', now()->subDays(self::TASK_DAYS)),
            'tasks' => self::rows('tasks', 'ended_at', now()->subDays(self::TASK_DAYS)),
            'failed_jobs' => self::rows('failed_jobs', 'failed_at', now()->subDays(self::FAILED_JOB_DAYS)),
            'note_files' => $this->noteFiles(),
            'uploads' => $this->uploads(),
            'reports' => $this->oldFiles(Folders::var('reports/*.pdf*'), self::REPORT_HOURS * 3600),
            'exports' => self::oldFolders(Folders::var('exports/*'), self::EXPORT_DAYS),
            'journals' => $this->oldFiles(Folders::var('lineup/*.jsonl'), self::TASK_DAYS * 86_400),
            'heard' =>
                $this->oldFiles(Folders::var('words/*.jsonl'), self::TASK_DAYS * 86_400) +
                $this->oldFiles(Folders::var('words/*.txt'), self::TASK_DAYS * 86_400) +
                self::oldFolders(Folders::var('words/*'), self::TASK_DAYS),
            'last_words' => $this->oldFiles(storage_path('logs/task-*.last'), self::TASK_DAYS * 86_400),
            'logs' => $this->logs(),
        ];
    }

    /** Folders of which the last was written long ago. */
    private static function oldFolders(string $pattern, int $days): int
    {
        $old = array_filter(
            glob($pattern, GLOB_ONLYDIR) ?: [],
            static fn(string $folder): bool => (int) @filemtime($folder) < now()->subDays($days)->getTimestamp(),
        );
        array_map(File::deleteDirectory(...), $old);

        return count($old);
    }

    private static function rows(string $table, string $column, \DateTimeInterface $before): int
    {
        $removed = 0;
        do {
            $count = DB::table($table)->where($column, '<', $before)->limit(self::ROWS)->delete();
            $removed += $count;
        } while ($count === self::ROWS);

        return $removed;
    }

    /** The tables of notes that came in long ago, or belong to nothing; what they said is in the log. */
    private function noteFiles(): int
    {
        $removed = 0;
        $known = [];
        foreach (ScriptNoteFile::query()->lazyById(500) as $file) {
            $isOld = ($file->applied_at ?? $file->created_at) < now()->subDays(self::NOTE_DAYS);
            $known[basename((string) $file->path)] = !$isOld;
            $known[basename(NoteFaults::pathOf($file->path))] = !$isOld;
        }
        foreach (glob(Folders::var('notes/*')) ?: [] as $path) {
            if (is_file($path) && !is_link($path) && ($known[basename($path)] ?? filemtime($path) > time() - 86_400) === false) {
                $removed += (int) @unlink($path);
            }
        }

        return $removed;
    }

    private function uploads(): int
    {
        $removed = 0;
        foreach (
            Upload::query()->whereNull('card_id')->where('updated_at', '<', now()->subDays(self::UPLOAD_DAYS))->lazyById(100)
            as $upload
        ) {
            // Pieces do not touch the upload itself.
            if ((int) @filemtime(Imports::folder($upload)) < time() - self::UPLOAD_DAYS * 86_400) {
                $upload->delete();
                File::deleteDirectory(Imports::folder($upload));
                $removed++;
            }
        }

        return $removed;
    }

    private function oldFiles(string $pattern, int $seconds): int
    {
        $removed = 0;
        foreach (glob($pattern) ?: [] as $path) {
            if (is_file($path) && filemtime($path) < time() - $seconds) {
                $removed += (int) @unlink($path);
            }
        }

        return $removed;
    }

    /** Copied and emptied in place: the services keep them open. Their supervisor turns its own. */
    private function logs(): int
    {
        $turned = 0;
        foreach (glob(Folders::logs('*')) ?: [] as $path) {
            if (!is_file($path) || preg_match('/\.(log|err|out)\z/', $path) !== 1 || (int) filesize($path) < self::LOG_BYTES) {
                continue;
            }
            for ($number = self::LOGS_KEPT; $number > 1; $number--) {
                @rename($path . '.' . ($number - 1), $path . '.' . $number);
            }
            $handle = @fopen($path, 'r+');
            if ($handle !== false && copy($path, $path . '.1')) {
                ftruncate($handle, 0);
                $turned++;
            }
            $handle === false ?: fclose($handle);
        }

        return $turned;
    }
}
