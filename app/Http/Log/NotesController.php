<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Domain\Footage\GiveNames;
use App\Domain\Log\BringScript;
use App\Domain\Log\ReadSlates;
use App\Domain\Log\ScriptNotes\BringNotes;
use App\Domain\Log\SetPatterns;
use App\Http\Controller;
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
use Illuminate\Validation\Rule;

/** What comes into the log from elsewhere, and the patterns that read and give names. */
final class NotesController extends Controller
{
    public function store(Request $request, Production $production, ShootDay $day, BringNotes $bring): JsonResponse
    {
        $sent = self::sent($request);

        return new JsonResponse($this->facts($bring($day, self::who($request), $sent->getPathname(), $sent->getClientOriginalName())), 201);
    }

    public function show(Production $production, ScriptNoteFile $noteFile): JsonResponse
    {
        return new JsonResponse($this->facts($noteFile));
    }

    public function preview(Request $request, Production $production, ScriptNoteFile $noteFile, BringNotes $bring): JsonResponse
    {
        $input = $request->validate([
            'heading' => ['required', 'integer', 'between:-1,' . BringNotes::SHOWN_ROWS],
            'columns' => ['required', 'array', 'max:100'],
            'columns.*' => [Rule::in(array_keys(NoteColumns::targets($production->fields())))],
        ]);
        $bring->preview($noteFile, self::who($request), (int) $input['heading'], $input['columns']);

        return new JsonResponse($this->facts($noteFile->refresh()), 202);
    }

    public function apply(Request $request, Production $production, ScriptNoteFile $noteFile, BringNotes $bring): JsonResponse
    {
        $bring->apply($noteFile, self::who($request));

        return new JsonResponse($this->facts($noteFile->refresh()), 202);
    }

    public function script(Request $request, Production $production, BringScript $bring): JsonResponse
    {
        $sent = self::sent($request);
        $text = (string) file_get_contents($sent->getPathname(), length: 4_000_000);

        return new JsonResponse(
            $request->boolean('apply')
                ? $bring($production, self::who($request), $text, $sent->getClientOriginalName())
                : $bring->preview($production, $text),
        );
    }

    public function tryPatterns(Request $request, Production $production, ShootDay $day, ReadSlates $read): JsonResponse
    {
        $input = self::patterns($request, 'patterns');

        return new JsonResponse(['clips' => $read->preview($day, SlateReader::of($input, $production->slate_style))]);
    }

    public function setPatterns(Request $request, Production $production, string $which, SetPatterns $set): JsonResponse
    {
        $set(
            $production,
            self::who($request),
            $which === 'slate' ? 'slate_patterns' : 'name_patterns',
            self::patterns($request, 'was'),
            self::patterns($request, 'now'),
        );

        return new JsonResponse([]);
    }

    public function namePatterns(Production $production): JsonResponse
    {
        return new JsonResponse(['patterns' => $production->namePatterns()]);
    }

    public function previewNames(Request $request, Production $production, GiveNames $give): JsonResponse
    {
        return new JsonResponse(['names' => $give->preview($production, ...self::naming($request))]);
    }

    public function giveNames(Request $request, Production $production, GiveNames $give): JsonResponse
    {
        return new JsonResponse(['changed' => $give($production, self::who($request), ...self::naming($request))]);
    }

    /** @return array{0: 'clips'|'takes'|'subclips', 1: list<string>, 2: string, 3: int, 4: int} */
    private static function naming(Request $request): array
    {
        $input = $request->validate([
            'what' => ['required', Rule::in(['clips', 'takes', 'subclips'])],
            'ulids' => ['required', 'array', 'between:1,' . GiveNames::LIMIT],
            'ulids.*' => ['string', 'size:26'],
            'pattern' => ['required', 'string', 'max:160'],
            'start' => ['sometimes', 'integer', 'between:0,99999'],
            'step' => ['sometimes', 'integer', 'between:1,1000'],
        ]);

        return [
            $input['what'],
            array_values($input['ulids']),
            $input['pattern'],
            (int) ($input['start'] ?? 1),
            (int) ($input['step'] ?? 1),
        ];
    }

    /** @return list<string> */
    private static function patterns(Request $request, string $key): array
    {
        $input = $request->validate([$key => ['required', 'array', 'between:1,20'], "$key.*" => ['required', 'string', 'max:160']]);

        return array_values($input[$key]);
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
