<?php

declare(strict_types=1);

namespace App\Http\Handoff;

use App\Domain\Handoff\AnswerHandoff;
use App\Domain\Handoff\Back\ListFile;
use App\Domain\Handoff\Delivery;
use App\Domain\Handoff\HandoffList;
use App\Domain\Handoff\HandoffQuestions;
use App\Domain\Handoff\PackageContents;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Handoff\Answers\HandoffAnswer;
use App\Http\Handoff\Answers\HandoffStateAnswer;
use App\Http\Handoff\Answers\OpenedEventAnswer;
use App\Http\Handoff\Answers\OpenedListAnswer;
use App\Http\Handoff\Answers\PackageAnswer;
use App\Http\Handoff\Answers\PackageFileAnswer;
use App\Http\Handoff\Requests\AnswerQuestionRequest;
use App\Http\Handoff\Requests\AskRequest;
use App\Http\Handoff\Requests\PackagePathRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Handoff;
use App\Models\HandoffQuestion;
use App\Models\Production;
use App\Support\Problem;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Symfony\Component\HttpFoundation\HeaderUtils;

/** A delivered package as the editing team sees it: looked through, played, checked, accepted, asked about. */
final class PackageController extends Controller
{
    /** What a browser shows by itself; all else is saved. */
    private const SHOWN = [
        'mp4' => 'video/mp4',
        'wav' => 'audio/wav',
        'pdf' => 'application/pdf',
        'csv' => 'text/plain; charset=utf-8',
        'edl' => 'text/plain; charset=utf-8',
        'json' => 'text/plain; charset=utf-8',
        'otio' => 'text/plain; charset=utf-8',
        'ccc' => 'text/plain; charset=utf-8',
        'jpg' => 'image/jpeg',
        'png' => 'image/png',
    ];

    public function show(Production $production, Handoff $handoff, HandoffList $list): JsonResponse
    {
        return new JsonResponse(
            new PackageAnswer(
                Answers::make(HandoffAnswer::class, $list->one($handoff)),
                Answers::list(PackageFileAnswer::class, PackageContents::of($handoff)),
            ),
        );
    }

    /** nginx or the store sends the bytes after this check; what is shown can do nothing there, and what cannot be shown is saved. */
    public function file(PackagePathRequest $request, Production $production, Handoff $handoff): Response|RedirectResponse
    {
        $path = (string) $request->validated('path');
        if (!PackageContents::has($handoff, $path)) {
            throw self::gone();
        }
        $kind = self::SHOWN[strtolower(pathinfo($path, PATHINFO_EXTENSION))] ?? null;
        $type = $kind ?? 'application/octet-stream';
        $disposition = HeaderUtils::makeDisposition(
            $kind === null ? 'attachment' : 'inline',
            str_replace(['/', '\\', '%'], '_', basename($path)),
            (string) preg_replace('/[^\x20-\x7e]|[%\/\\\\]/', '_', basename($path)),
        );
        $delivery = Delivery::of($handoff);
        $accel = $delivery->accel($path);

        return $accel === null
            ? new RedirectResponse($delivery->signed($path, $type, $disposition))
            : new Response('', 200, ['X-Accel-Redirect' => $accel, 'Content-Type' => $type, 'Content-Disposition' => $disposition]);
    }

    public function open(PackagePathRequest $request, Production $production, Handoff $handoff): JsonResponse
    {
        $path = (string) $request->validated('path');
        $file = PackageContents::file($handoff, $path) ?? throw self::gone();
        if (!isset(ListFile::FORMATS[strtolower(pathinfo($path, PATHINFO_EXTENSION))])) {
            throw Problem::refused('list.kind', 'This is no list that can be opened here.', 'Save it and open it elsewhere.');
        }
        $cut = ListFile::read((string) file_get_contents($file), $production->rate())->sequence;
        $label = static fn(int $ticks): string => Timecode::label(Ticks::toFrames($ticks, $cut->rate), $cut->rate);
        $events = [];
        foreach ($cut->tracks as $track) {
            foreach ($track->items as $item) {
                $from = $item->source->startTicks + $item->sourceStartTicks;
                $events[] = [
                    $item->recordStartTicks,
                    new OpenedEventAnswer(
                        $track->name,
                        $item->name,
                        $item->source->reel,
                        $label($from),
                        $label($from + abs($item->speed->ofSource($item->durationTicks))),
                        $label($cut->startTicks + $item->recordStartTicks),
                        $label($cut->startTicks + $item->recordEndTicks()),
                    ),
                ];
            }
        }
        usort($events, static fn(array $x, array $y): int => $x[0] <=> $y[0]);

        return new JsonResponse(new OpenedListAnswer($cut->title, $cut->rate->label(), array_column($events, 1)));
    }

    public function accept(Request $request, Production $production, Handoff $handoff, AnswerHandoff $answer): JsonResponse
    {
        return new JsonResponse(new HandoffStateAnswer($answer($handoff, self::who($request))->state));
    }

    public function takeBack(Request $request, Production $production, Handoff $handoff, AnswerHandoff $answer): JsonResponse
    {
        $answer->takeBack($handoff, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }

    public function ask(AskRequest $request, Production $production, Handoff $handoff, HandoffQuestions $questions): JsonResponse
    {
        $made = $questions->ask($handoff, self::who($request), trim($request->validated('question')), $request->validated('path'));

        return new JsonResponse(new MadeAnswer($made->ulid), 201);
    }

    public function answer(
        AnswerQuestionRequest $request,
        Production $production,
        Handoff $handoff,
        HandoffQuestion $question,
        HandoffQuestions $questions,
    ): JsonResponse {
        $answer = trim((string) $request->validated('answer'));
        $answer === '' ? $questions->takeBack($question) : $questions->answer($question, self::who($request), $answer);

        return new JsonResponse(new DoneAnswer());
    }

    private static function gone(): Problem
    {
        return Problem::missing('That part of the package', 'Load the page again.');
    }
}
