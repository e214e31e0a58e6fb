<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Domain\Footage\GiveNames;
use App\Domain\Log\BringScript;
use App\Domain\Log\ReadSlates;
use App\Domain\Log\ScriptNotes\BringNotes;
use App\Domain\Log\SetPatterns;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Log\Answers\NamesAnswer;
use App\Http\Log\Answers\NoteFileAnswer;
use App\Http\Log\Answers\PatternsAnswer;
use App\Http\Log\Answers\ScriptReportAnswer;
use App\Http\Log\Answers\SlatePreviewAnswer;
use App\Http\Log\Requests\NamingRequest;
use App\Http\Log\Requests\PreviewNotesRequest;
use App\Http\Log\Requests\SetPatternsRequest;
use App\Http\Log\Requests\TryPatternsRequest;
use App\Http\Shell\Answers\ChangedAnswer;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\TaskAnswer;
use App\Models\Production;
use App\Models\ScriptNoteFile;
use App\Models\ShootDay;
use App\Support\Problem;
use Cartella\Core\Log\NoteColumns;
use Cartella\Core\Slate\SlateReader;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;

/** What comes into the log from elsewhere, and the patterns that read and give names. */
final class NotesController extends Controller
{
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
        $bring->preview($noteFile, self::who($request), (int) $input['heading'], $input['columns']);

        return new JsonResponse(Answers::make(NoteFileAnswer::class, $this->facts($noteFile->refresh())), 202);
    }

    public function apply(Request $request, Production $production, ScriptNoteFile $noteFile, BringNotes $bring): JsonResponse
    {
        $bring->apply($noteFile, self::who($request));

        return new JsonResponse(Answers::make(NoteFileAnswer::class, $this->facts($noteFile->refresh())), 202);
    }

    public function script(Request $request, Production $production, BringScript $bring): JsonResponse
    {
        $sent = self::sent($request);
        $text = (string) file_get_contents($sent->getPathname(), length: 4_000_000);

        return new JsonResponse(
            Answers::make(
                ScriptReportAnswer::class,
                $request->boolean('apply')
                    ? $bring($production, self::who($request), $text, $sent->getClientOriginalName())
                    : $bring->preview($production, $text),
            ),
        );
    }

    public function tryPatterns(TryPatternsRequest $request, Production $production, ShootDay $day, ReadSlates $read): JsonResponse
    {
        $reader = SlateReader::of(array_values($request->validated('patterns')), $production->slate_style);

        return new JsonResponse(Answers::make(SlatePreviewAnswer::class, ['clips' => $read->preview($day, $reader)]));
    }

    public function setPatterns(SetPatternsRequest $request, Production $production, string $which, SetPatterns $set): JsonResponse
    {
        $set(
            $production,
            self::who($request),
            $which === 'slate' ? 'slate_patterns' : 'name_patterns',
            array_values($request->validated('was')),
            array_values($request->validated('now')),
        );

        return new JsonResponse(new DoneAnswer());
    }

    public function namePatterns(Production $production): JsonResponse
    {
        return new JsonResponse(new PatternsAnswer($production->namePatterns()));
    }

    public function previewNames(NamingRequest $request, Production $production, GiveNames $give): JsonResponse
    {
        return new JsonResponse(Answers::make(NamesAnswer::class, ['names' => $give->preview($production, ...$request->naming())]));
    }

    public function giveNames(NamingRequest $request, Production $production, GiveNames $give): JsonResponse
    {
        return new JsonResponse(new ChangedAnswer($give($production, self::who($request), ...$request->naming())));
    }

    private static function sent(Request $request): UploadedFile
    {
        $sent = $request->file('file');
        if (!($sent instanceof UploadedFile) || !$sent->isValid()) {
            throw Problem::refused('file.missing', 'No file came through.', 'Choose a file of at most 64 MB and try again.');
        }

        return $sent;
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
        ];
    }
}
