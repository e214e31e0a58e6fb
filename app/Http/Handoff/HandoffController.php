<?php

declare(strict_types=1);

namespace App\Http\Handoff;

use App\Domain\Bins\BinTree;
use App\Domain\Handoff\Gate;
use App\Domain\Handoff\HandoffList;
use App\Domain\Handoff\MakeHandoff;
use App\Domain\Handoff\PackageLog;
use App\Domain\Handoff\PackingPlans;
use App\Http\Answers;
use App\Http\Bins\Answers\BinTreeAnswer;
use App\Http\Controller;
use App\Http\Handoff\Answers\CutNameAnswer;
use App\Http\Handoff\Answers\GatePointAnswer;
use App\Http\Handoff\Answers\HandoffAnswer;
use App\Http\Handoff\Answers\HandoffsAnswer;
use App\Http\Handoff\Answers\PackingPlanAnswer;
use App\Http\Handoff\Requests\HandOffRequest;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Production;
use App\Models\StoredSequence;
use Illuminate\Http\JsonResponse;

/** Hand-offs as the assistants make them: planned, looked over, sent. */
final class HandoffController extends Controller
{
    public function index(Production $production, HandoffList $list, BinTree $tree): JsonResponse
    {
        $usual = $list->usual($production);

        return new JsonResponse(
            new HandoffsAnswer(
                Answers::list(HandoffAnswer::class, $list->of($production)),
                BinTreeAnswer::of($tree->forHandoff($production), []),
                $list
                    ->cuts($production)
                    ->map(static fn(StoredSequence $one): CutNameAnswer => new CutNameAnswer($one->ulid, $one->name, $one->kind->value))
                    ->all(),
                $usual->folders,
                $usual->pattern,
            ),
        );
    }

    public function plan(HandOffRequest $request, Production $production, PackingPlans $plans, Gate $gate): JsonResponse
    {
        $plan = $plans->of($production, $request->choice($production));
        $points = array_map(
            static fn(array $one): GatePointAnswer => new GatePointAnswer(
                $one['day'],
                $one['number'],
                $one['point']->key,
                $one['point']->weight,
                $one['point']->title,
                $one['point']->evidence,
                $one['point']->place,
                $one['point']->fixes,
            ),
            $gate->of($plan),
        );

        return new JsonResponse(
            Answers::make(
                PackingPlanAnswer::class,
                $plans->summary($plan) + ['points' => $points, 'columns' => PackageLog::columns($production)],
            ),
        );
    }

    public function store(HandOffRequest $request, Production $production, MakeHandoff $make): JsonResponse
    {
        $made = $make($production, self::who($request), $request->choice($production), $request->reasons());

        return new JsonResponse(new MadeAnswer($made->ulid), 202);
    }
}
