<?php

declare(strict_types=1);

namespace App\Domain\Log\ScriptNotes;

use App\Domain\Tasks\TaskRun;
use App\Models\ScriptNoteFile;
use App\Models\User;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Reads a file of notes through, for its preview or into the log. */
final class NotesJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    public function handle(ReadNotes $read): void
    {
        TaskRun::of($this->taskId, static function (TaskRun $run) use ($read): array {
            $file = ScriptNoteFile::query()
                ->with(['production', 'day'])
                ->findOrFail($run->task->subject['note']);
            $progress = static fn(int $rows) => $run->at($rows, now: "row $rows");
            if ($run->task->subject['open'] ?? false) {
                BringNotes::open($file, $run->task->subject['sheet'] ?? null);

                return ['message' => 'Opened.'];
            }
            if ($run->task->subject['apply'] !== true) {
                $file->update(['report' => $read->preview($file, $progress)]);

                return ['message' => 'Read; nothing is changed yet.'];
            }
            $run->expect((int) ($file->report['rows'] ?? 0));
            // A run that was killed after its step was written has nothing left to do.
            $report =
                $file->applied_at !== null
                    ? (array) $file->report
                    : $read->apply($file, User::query()->findOrFail($run->task->user_id), $progress);
            $file->update(['report' => $report]);

            return [
                'message' => sprintf(
                    '%d takes new, %d changed, %d rows of no take.',
                    $report['made'],
                    $report['counts']['new'] - $report['made'] + $report['counts']['different'],
                    $report['counts']['unmatched'],
                ),
            ];
        });
    }
}
