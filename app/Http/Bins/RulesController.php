<?php

declare(strict_types=1);

namespace App\Http\Bins;

use App\Domain\Bins\BinQuery;
use App\Domain\Bins\BinRows;
use App\Domain\Bins\EditBins;
use App\Domain\Bins\RuleSubjects;
use App\Http\Bins\Answers\BinPageAnswer;
use App\Http\Bins\Answers\RuleSubjectAnswer;
use App\Http\Bins\Answers\RuleSubjectsAnswer;
use App\Http\Bins\Requests\LookRequest;
use App\Http\Controller;
use App\Models\Production;
use Illuminate\Http\JsonResponse;

/** Rules of bins while they are written: what can be asked, and what a rule lets through. */
final class RulesController extends Controller
{
    public function subjects(Production $production): JsonResponse
    {
        return new JsonResponse(new RuleSubjectsAnswer(array_map(RuleSubjectAnswer::of(...), array_values(RuleSubjects::of($production)))));
    }

    public function look(LookRequest $request, Production $production, BinRows $rows): JsonResponse
    {
        $rule = EditBins::rule($production, $request->validated('rule'), null);
        $subjects = RuleSubjects::of($production);
        $query = BinQuery::ofRule($production, $rule, $subjects, $request->arrangement());
        $page = $request->boolean('sum')
            ? $query->count() + ['from' => 0, 'rows' => []]
            : $rows->of($production, $query, $request->integer('from'), $request->integer('limit', BinsController::PAGE));

        return new JsonResponse(BinPageAnswer::of($page, $rule->jsonSerialize(), $rule->sentence($subjects)));
    }
}
