<?php

declare(strict_types=1);

namespace App\Http\Cards;

use App\Domain\Cards\Imports;
use App\Http\Cards\Answers\ImportAnswer;
use App\Http\Cards\Answers\ImportLookAnswer;
use App\Http\Cards\Answers\ImportsAnswer;
use App\Http\Cards\Answers\KnownFileAnswer;
use App\Http\Cards\Answers\ReceivedAnswer;
use App\Http\Cards\Requests\BeginImportRequest;
use App\Http\Cards\Requests\ImportPieceRequest;
use App\Http\Controller;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\TaskAnswer;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Upload;
use App\Models\User;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Files that are dropped on a page. */
final class ImportsController extends Controller
{
    /** Those that are not copied yet. */
    public function index(Request $request, Production $production): JsonResponse
    {
        $open = Upload::query()
            ->with(['user', 'card'])
            ->withSum('parts', 'received_bytes')
            ->where('production_id', $production->id)
            ->orderBy('id')
            ->limit(50)
            ->get();

        return new JsonResponse(
            new ImportsAnswer(
                array_values($open->map(static fn(Upload $one): ImportAnswer => ImportAnswer::of($one, self::who($request)->id))->all()),
            ),
        );
    }

    /** What would come in of some files, before any of it is sent. */
    public function look(BeginImportRequest $request, Production $production): JsonResponse
    {
        $list = $request->list();
        $known = [];
        foreach (Imports::known($production, $list) as $place => $roll) {
            $known[] = new KnownFileAnswer($place, $roll);
        }

        return new JsonResponse(
            new ImportLookAnswer(array_map(intval(...), array_keys($list->files)), array_values($list->refused), $list->passed, $known),
        );
    }

    public function begin(BeginImportRequest $request, Production $production, ShootDay $day, Imports $imports): JsonResponse
    {
        $list = $request->list();
        $upload = $imports->begin($day, self::who($request), $list, $request->validated('import_kind'));

        return new JsonResponse(ImportAnswer::of($upload, self::who($request)->id, $list), 201);
    }

    public function piece(ImportPieceRequest $request, Production $production, Upload $upload, int $number, Imports $imports): JsonResponse
    {
        self::refuseOthers($upload, self::who($request));
        $from = (int) $request->validated('from');

        return new JsonResponse(
            new ReceivedAnswer($imports->take($upload, $number, $from, (string) $request->getContent(), (string) $request->digest())),
        );
    }

    public function finish(Request $request, Production $production, Upload $upload, Imports $imports): JsonResponse
    {
        return new JsonResponse(TaskAnswer::of($imports->finish($upload, self::who($request))), 202);
    }

    public function drop(Request $request, Production $production, Upload $upload, Imports $imports): JsonResponse
    {
        $imports->drop($upload);

        return new JsonResponse(new DoneAnswer());
    }

    private static function refuseOthers(Upload $upload, User $user): void
    {
        if ($upload->user_id !== $user->id) {
            throw Problem::missing('This import', 'Drop the files again.');
        }
    }
}
