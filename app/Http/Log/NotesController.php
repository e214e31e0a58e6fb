<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Domain\Log\ScriptNotes\BringNotes;
use App\Domain\Log\ScriptNotes\NoteFaults;
use App\Domain\Log\ScriptNotes\NoteSource;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Log\Answers\NoteFaultsAnswer;
use App\Http\Log\Answers\NoteFileAnswer;
use App\Http\Log\Requests\FaultsRequest;
use App\Http\Log\Requests\PreviewNotesRequest;
use App\Http\Log\Requests\SheetRequest;
use App\Http\Shell\Answers\TaskAnswer;
use App\Models\Production;
use App\Models\ScriptNoteFile;
use App\Models\ShootDay;
use Cartella\Core\Log\NoteColumns;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Script notes of others on their way into the log. */
final class NotesController extends Controller
{
    /** At once. */
    private const FAULTS = 500;

    public function store(Request $request, Production $production, ShootDay $day, BringNotes $bring): JsonResponse
    {
        $sent = self::sent($request);

        return new JsonResponse(
            Answers::make(
                NoteFileAnswer::class,
                $this->facts($bring($day, self::who($request), $sent->getPathname(), $sent->getClientOriginalName())),
            ),
            201,
        );
    }

    public function show(Production $production, ScriptNoteFile $noteFile): JsonResponse
    {
        return new JsonResponse(Answers::make(NoteFileAnswer::class, $this->facts($noteFile)));
    }

    public function preview(PreviewNotesRequest $request, Production $production, ScriptNoteFile $noteFile, BringNotes $bring): JsonResponse
    {
        $input = $request->validated();
        $bring->preview(
            $noteFile,
            self::who($request),
            (int) $input['heading'],
            $input['columns'],
            array_intersect_key($input, ['corrects' => 1]),
        );

        return new JsonResponse(Answers::make(NoteFileAnswer::class, $this->facts($noteFile->refresh())), 202);
    }

    public function sheet(SheetRequest $request, Production $production, ScriptNoteFile $noteFile, BringNotes $bring): JsonResponse
    {
        $bring->sheet($noteFile, self::who($request), (int) $request->validated('sheet'));

        return new JsonResponse(Answers::make(NoteFileAnswer::class, $this->facts($noteFile->refresh())), 202);
    }

    /** Cells that were left out, beyond those that came with the report. */
    public function faults(FaultsRequest $request, Production $production, ScriptNoteFile $noteFile): JsonResponse
    {
        return new JsonResponse(new NoteFaultsAnswer(NoteFaults::of($noteFile)->page((int) $request->validated('from', 0), self::FAULTS)));
    }

    /** All of them, to keep or to send to who wrote the notes. */
    public function faultsFile(Production $production, ScriptNoteFile $noteFile): Response
    {
        return self::document(NoteFaults::of($noteFile)->csv(), "$noteFile->name - left out.csv", 'csv');
    }

    public function apply(Request $request, Production $production, ScriptNoteFile $noteFile, BringNotes $bring): JsonResponse
    {
        $bring->apply($noteFile, self::who($request));

        return new JsonResponse(Answers::make(NoteFileAnswer::class, $this->facts($noteFile->refresh())), 202);
    }

    /** @return array<string, mixed> */
    private function facts(ScriptNoteFile $file): array
    {
        $task = BringNotes::taskOf($file);
        // After the task: one that is done by now has left its report in the file since it was fetched.
        $file->refresh();

        return [
            'ulid' => $file->ulid,
            'name' => $file->name,
            'heading' => $file->layout['heading'],
            'columns' => (object) $file->layout['columns'],
            'is_known' => $file->layout['is_known'] ?? false,
            'rows' => $file->layout['head'] ?? [],
            'report' => $file->report,
            'applied' => $file->applied_at !== null,
            'task' => $task === null ? null : TaskAnswer::of($task),
            'targets' => array_keys(NoteColumns::targets($file->production->fields())),
            'sheets' => $file->layout['sheets'] ?? [],
            'sheet' => $file->layout['sheet'] ?? 0,
            'others' => $file->report === null ? [] : NoteSource::others($file),
        ];
    }
}
