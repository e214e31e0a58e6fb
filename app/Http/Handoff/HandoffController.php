<?php

declare(strict_types=1);

namespace App\Http\Handoff;

use App\Domain\Bins\BinTree;
use App\Domain\Handoff\AnswerHandoff;
use App\Domain\Handoff\HandoffList;
use App\Domain\Handoff\MakeHandoff;
use App\Http\Answers;
use App\Http\Bins\Answers\BinTreeAnswer;
use App\Http\Controller;
use App\Http\Handoff\Answers\HandoffAnswer;
use App\Http\Handoff\Answers\HandoffsAnswer;
use App\Http\Handoff\Answers\HandoffStateAnswer;
use App\Http\Handoff\Requests\AnswerRequest;
use App\Http\Handoff\Requests\HandOffRequest;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Handoff;
use App\Models\Production;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;

final class HandoffController extends Controller
{
    public function index(Production $production, HandoffList $list, BinTree $tree): JsonResponse
    {
        return new JsonResponse(
            new HandoffsAnswer(
                Answers::list(HandoffAnswer::class, $list->of($production)),
                BinTreeAnswer::of($tree->forHandoff($production), []),
            ),
        );
    }

    public function store(HandOffRequest $request, Production $production, MakeHandoff $make): JsonResponse
    {
        $input = $request->validated();
        $days = $production->days()->whereIn('ulid', $input['days'])->orderBy('number')->get();
        if ($days->count() !== count(array_unique($input['days']))) {
            throw Problem::missing('One of those days', 'Load the page again.');
        }

        return new JsonResponse(new MadeAnswer($make($production, self::who($request), $days, $input['bins'])->ulid), 202);
    }

    public function answer(AnswerRequest $request, Production $production, Handoff $handoff, AnswerHandoff $answer): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(new HandoffStateAnswer($answer($handoff, self::who($request), $input['query'])->state));
    }
}
