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
                $this->look($file, $user, null);
            }

            return $file;
        });
    }

    /**
     * Looks at a workbook: at one sheet, or at the first whose heading says most.
     *
     * @throws Problem if it is no table, or unpacks to too much
     */
    public static function open(ScriptNoteFile $file, ?int $sheet = null): void
    {
        $path = Folders::var($file->path);
        $sheets = NoteTable::open($path)->sheets();
        $layouts = array_map(
            static fn(int $at): array => self::read($file->day, $path, $at),
            $sheet === null ? array_keys($sheets) : [$sheet],
        );
        usort(
            $layouts,
            static fn(array $x, array $y): int => [count($y['columns']), count($y['head'])] <=> [count($x['columns']), count($x['head'])],
        );
        // A sheet that is chosen may be empty; somebody wanted to see that.
        if ($layouts === [] || ($sheet === null && $layouts[0]['head'] === [])) {
            throw Problem::refused('notes.empty', 'No sheet of it holds anything.', 'Bring a workbook with a table in it.');
        }
        $file->update(['layout' => ['sheets' => $sheets] + $layouts[0], 'report' => null]);
    }

    /** @return array<string, mixed> what the columns of a table of text are taken for, and its first rows */
    private static function layout(ShootDay $day, string $path): array
    {
        $layout = self::read($day, $path, 0);

        return $layout['head'] === []
            ? throw Problem::refused('notes.empty', 'There is nothing in it.', 'Bring a table with a heading and rows.')
            : $layout;
    }

    /** @return array{sheet: int, heading: int, columns: array<int, string>, is_known: bool, head: list<list<string>>} */
    private static function read(ShootDay $day, string $path, int $sheet): array
    {
        $head = NoteTable::open($path)->head(max(self::SHOWN_ROWS, NoteColumns::LOOK_AT), $sheet);
        if (array_filter(array_merge([], ...$head), static fn(string $cell): bool => $cell !== '') === []) {
            return ['sheet' => $sheet, 'heading' => -1, 'columns' => [], 'is_known' => false, 'head' => []];
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
            'sheet' => $sheet,
            'heading' => $guess['heading'],
            'columns' => $known === null ? $guess['columns'] : json_decode($known, true),
            'is_known' => $known !== null,
            'head' => array_slice($head, 0, self::SHOWN_ROWS),
        ];
    }

    /**
     * Looks at another sheet of a workbook.
     *
     * @throws Problem if it has no such sheet, or came in already
     */
    public function sheet(ScriptNoteFile $file, User $user, int $sheet): void
    {
        if (!isset($file->layout['sheets'][$sheet])) {
            throw Problem::refused('notes.sheet', 'There is no such sheet.', 'Choose one of the list.');
        }
        $this->refuseWhileBusy($file);
        self::refuseAgain($file);
        $this->look($file, $user, $sheet);
    }

    private function look(ScriptNoteFile $file, User $user, ?int $sheet): void
    {
        ($this->start)(
            $file->production,
            $user,
            'notes',
            "Open $file->name",
            ['note' => $file->id, 'apply' => false, 'open' => true, 'sheet' => $sheet],
            "notes.$file->id",
        );
    }

    /**
     * @param  array<int, string>  $columns
     * @param  array{corrects?: string|null}  $said  the older file that a person says these correct, or null for none; left out, the notes
     *     are compared with those of other files
     *
     * @throws Problem if the columns name no take, or no such file's words are in the log
     */
    public function preview(ScriptNoteFile $file, User $user, int $heading, array $columns, array $said = []): Task
    {
        if (array_intersect($columns, ['take', 'slate', 'clip', 'time']) === []) {
            throw Problem::refused(
                'notes.columns',
                'No column says which take a row is of.',
                'Say which column is the slate, the take, the clip or the time.',
            );
        }
        if (isset($said['corrects']) && !in_array($said['corrects'], NoteSource::others($file), true)) {
            throw Problem::refused('notes.corrects', 'No such file is in the log.', 'Choose one of the list.');
        }
        $this->refuseWhileBusy($file);
        self::refuseAgain($file);
        $file->update([
            'layout' => ['heading' => $heading, 'columns' => $columns] + $said + array_diff_key($file->layout, ['corrects' => 1]),
            'report' => null,
        ]);

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
        self::refuseAgain($file);
        if ($file->report === null) {
            throw Problem::refused('notes.state', 'Nobody has looked at these notes yet.', 'Look at what they change first.');
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

    private static function refuseAgain(ScriptNoteFile $file): void
    {
        if ($file->applied_at !== null) {
            throw Problem::refused(
                'notes.state',
                'These notes are in the log already.',
                'Take the step back with Ctrl Z, then bring them again.',
            );
        }
    }

    private function refuseWhileBusy(ScriptNoteFile $file): void
    {
        if (self::taskOf($file)?->isOver() === false) {
            throw Problem::refused('notes.busy', "$file->name is being read.", 'Wait until it is done, or stop it.');
        }
    }
}
