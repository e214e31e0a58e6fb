<?php

declare(strict_types=1);

namespace App\Domain\Log\ScriptNotes;

use App\Domain\Tasks\StartTask;
use App\Models\ScriptNoteFile;
use App\Models\ShootDay;
use App\Models\Task;
use App\Models\User;
use App\Support\Folders;
use App\Support\Problem;
use Cartella\Core\Log\NoteColumns;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Illuminate\Support\Str;

/** Takes in a file of notes, guesses what its columns are, and starts its preview and its applying. */
final class BringNotes
{
    public const SHOWN_ROWS = 25;

    public function __construct(private readonly StartTask $start) {}

    /**
     * Keeps the file. Text is looked at at once; a workbook has to be unpacked, which a worker does.
     *
     * @param  string  $path  the file as it was sent
     *
     * @throws Problem if it is no table
     */
    public function __invoke(ShootDay $day, User $user, string $path, string $name): ScriptNoteFile
    {
        $isWorkbook = NoteTable::isWorkbook($path);
        $layout = $isWorkbook ? ['heading' => -1, 'columns' => [], 'head' => []] : self::layout($day, $path);
        $stored = 'notes/' . Str::ulid();
        File::ensureDirectoryExists(Folders::var('notes'));
        File::copy($path, Folders::var($stored));

        return DB::transaction(function () use ($day, $user, $name, $stored, $layout, $isWorkbook): ScriptNoteFile {
            $file = ScriptNoteFile::query()->create([
                'production_id' => $day->production_id,
                'shoot_day_id' => $day->id,
                'user_id' => $user->id,
                'name' => mb_substr((string) preg_replace('/[\x00-\x1F\x7F\/\\\\]/', '_', mb_scrub($name)), 0, 190),
                'path' => $stored,
                'layout' => $layout,
            ]);
            if ($isWorkbook) {
                ($this->start)(
                    $day->production,
                    $user,
                    'notes',
                    "Open $file->name",
                    ['note' => $file->id, 'apply' => false, 'open' => true],
                    "notes.$file->id",
                );
            }

            return $file;
        });
    }

    /** @throws Problem if it is no table, or unpacks to too much */
    public static function open(ScriptNoteFile $file): void
    {
        $file->update(['layout' => self::layout($file->day, Folders::var($file->path))]);
    }

    /** @return array<string, mixed> what its columns are taken for, and its first rows */
    private static function layout(ShootDay $day, string $path): array
    {
        $head = NoteTable::open($path)->head(max(self::SHOWN_ROWS, NoteColumns::LOOK_AT));
        if (array_filter(array_merge([], ...$head), static fn(string $cell): bool => $cell !== '') === []) {
            throw Problem::refused('notes.empty', 'The first sheet is empty.', 'Put the notes on the first sheet.');
        }
        $guess = NoteColumns::guess($head, $day->production->fields());
        $known =
            $guess['heading'] < 0
                ? null
                : DB::table('script_note_layouts')
                    ->where('production_id', $day->production_id)
                    ->where('signature', NoteColumns::signature($head[$guess['heading']]))
                    ->value('columns');

        return [
            'heading' => $guess['heading'],
            'columns' => $known === null ? $guess['columns'] : json_decode($known, true),
            'is_known' => $known !== null,
            'head' => array_slice($head, 0, self::SHOWN_ROWS),
        ];
    }

    /**
     * @param  array<int, string>  $columns
     *
     * @throws Problem if the columns name no take
     */
    public function preview(ScriptNoteFile $file, User $user, int $heading, array $columns): Task
    {
        if (array_intersect($columns, ['take', 'slate', 'clip', 'time']) === []) {
            throw Problem::refused(
                'notes.columns',
                'No column says which take a row is of.',
                'Say which column is the slate, the take, the clip or the time.',
            );
        }
        $this->refuseWhileBusy($file);
        $file->update(['layout' => ['heading' => $heading, 'columns' => $columns] + $file->layout, 'report' => null]);

        return ($this->start)(
            $file->production,
            $user,
            'notes',
            "Read $file->name",
            ['note' => $file->id, 'apply' => false],
            "notes.$file->id",
        );
    }

    /** @throws Problem if it has not been looked at, or came in already */
    public function apply(ScriptNoteFile $file, User $user): Task
    {
        if ($file->report === null || $file->applied_at !== null) {
            throw Problem::refused(
                'notes.state',
                $file->applied_at === null ? 'Nobody has looked at these notes yet.' : 'These notes are in the log already.',
                $file->applied_at === null ? 'Look at what they change first.' : 'Take the step back with Ctrl Z, then bring them again.',
            );
        }
        $this->refuseWhileBusy($file);
        $heading = $file->layout['head'][$file->layout['heading']] ?? null;
        if ($heading !== null) {
            DB::table('script_note_layouts')->updateOrInsert(
                ['production_id' => $file->production_id, 'signature' => NoteColumns::signature($heading)],
                ['columns' => json_encode((object) $file->layout['columns'], JSON_THROW_ON_ERROR), 'updated_at' => now()],
            );
        }

        return ($this->start)(
            $file->production,
            $user,
            'notes',
            "Bring in $file->name",
            ['note' => $file->id, 'apply' => true],
            "notes.$file->id",
        );
    }

    public static function taskOf(ScriptNoteFile $file): ?Task
    {
        return Task::query()
            ->where('production_id', $file->production_id)
            ->where('kind', 'notes')
            ->where('subject->note', $file->id)
            ->latest('id')
            ->first();
    }

    private function refuseWhileBusy(ScriptNoteFile $file): void
    {
        if (self::taskOf($file)?->isOver() === false) {
            throw Problem::refused('notes.busy', "$file->name is being read.", 'Wait until it is done, or stop it.');
        }
    }
}
