<?php

declare(strict_types=1);

namespace App\Http\Screening;

use App\Domain\Reports\MakeReport;
use App\Domain\Screening\ExportReel;
use App\Domain\Screening\Said;
use App\Domain\Screening\ScreeningReport;
use App\Domain\Tasks\CancelTask;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Screening\Answers\ReelExportAnswer;
use App\Http\Screening\Answers\ReelExportsAnswer;
use App\Http\Screening\Answers\ReelPersonAnswer;
use App\Http\Screening\Answers\ReelSummaryOfNotesAnswer;
use App\Http\Screening\Answers\SaidTakeAnswer;
use App\Http\Screening\Requests\ExportRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Production;
use App\Models\StoredSequence;
use App\Models\Take;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Symfony\Component\HttpFoundation\HeaderUtils;

/** What a reel gives away: the notes of its screening, and itself as a file, as any cut is. */
final class ReelPapersController extends Controller
{
    public function summary(Request $request, Production $production, StoredSequence $reel, Said $said): JsonResponse
    {
        $takes = $said->takes($reel);
        $who = self::who($request)->id;

        return new JsonResponse(
            new ReelSummaryOfNotesAnswer(
                Answers::list(ReelPersonAnswer::class, Said::people($takes)),
                array_map(static fn(Take $take): SaidTakeAnswer => SaidTakeAnswer::of($take, $production->rate(), $who), $takes),
            ),
        );
    }

    public function notes(
        Request $request,
        Production $production,
        StoredSequence $reel,
        string $format,
        ScreeningReport $report,
        MakeReport $make,
    ): Response {
        $name = "Notes on $reel->name.$format";
        if ($format === 'csv') {
            return self::document($report->csv($reel), $name, 'csv');
        }
        $day = $reel->day ?? $production->days()->orderBy('number')->firstOrFail();

        return self::made($make($day, self::who($request), 'screening', null, $reel->ulid), $name);
    }

    public function exports(Production $production, StoredSequence $sequence): JsonResponse
    {
        return new JsonResponse(
            new ReelExportsAnswer(array_values(array_map(ReelExportAnswer::of(...), ExportReel::of($sequence)->all()))),
        );
    }

    public function export(ExportRequest $request, Production $production, StoredSequence $sequence, ExportReel $export): JsonResponse
    {
        return new JsonResponse(new MadeAnswer($export($sequence, self::who($request), $request->wanted())->ulid), 201);
    }

    public function cancel(Production $production, StoredSequence $sequence, string $export, CancelTask $cancel): JsonResponse
    {
        $task = ExportReel::of($sequence)->firstWhere('ulid', $export) ?? throw Problem::missing('That file', 'Load the page again.');
        $cancel($task);

        return new JsonResponse(new DoneAnswer());
    }

    /** nginx sends the bytes after this check. */
    public function file(Production $production, StoredSequence $sequence, string $export, string $part): Response
    {
        $task = ExportReel::of($sequence)->firstWhere('ulid', $export);
        $name = ['picture' => 'reel.mp4', 'sound' => 'reel.wav'][$part] ?? "$part.wav";
        if ($task === null || !is_file(ExportReel::folder($task) . "/$name")) {
            throw Problem::missing('That file', 'Export the reel again.');
        }
        $track = array_column($task->result['tracks'] ?? [], 'name', 'part')[$part] ?? null;
        $called = $sequence->name . ($track === null ? '' : " $track") . ($part === 'picture' ? '.mp4' : '.wav');

        return new Response('', 200, [
            'X-Accel-Redirect' => config('cartella.accel_exports') . "$task->ulid/$name",
            'Content-Type' => $part === 'picture' ? 'video/mp4' : 'audio/wav',
            'Content-Disposition' => HeaderUtils::makeDisposition(
                'attachment',
                str_replace(['/', '\\'], '_', $called),
                (string) preg_replace('/[^\x20-\x7e]|[%\/\\\\]/', '_', $called),
            ),
        ]);
    }
}
