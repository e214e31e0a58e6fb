<?php

declare(strict_types=1);

namespace App\Http\Lineup;

use App\Domain\Lineup\CutIntoTakes;
use App\Domain\Lineup\SplitIntoTakes;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Lineup\Answers\CutPlanAnswer;
use App\Http\Lineup\Answers\SplitPlanAnswer;
use App\Http\Lineup\Answers\SplitTakesAnswer;
use App\Http\Lineup\Requests\CutRequest;
use App\Http\Lineup\Requests\SplitPlanRequest;
use App\Http\Lineup\Requests\SplitRequest;
use App\Http\Shell\Answers\ChangedAnswer;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Take;
use App\Support\Live;
use App\Support\Topic;
use Illuminate\Http\JsonResponse;

/** Takes from the line-up, and from long recordings. */
final class CutController extends Controller
{
    public function cutPlan(Production $production, ShootDay $day, CutIntoTakes $cut): JsonResponse
    {
        return new JsonResponse(
            Answers::make(CutPlanAnswer::class, [
                'rows' => $cut->plan($day),
                'patterns' => $production->namePatterns(),
                'pattern' => $production->name_patterns[0] ?? null,
            ]),
        );
    }

    public function cut(CutRequest $request, Production $production, ShootDay $day, CutIntoTakes $cut): JsonResponse
    {
        $input = $request->validated();
        $count = $cut($day, self::who($request), array_values($input['chosen']), $input['pattern'] ?? null);
        Live::tell($production->id, Topic::Takes);
        Live::tell($production->id, Topic::Lineup);

        return new JsonResponse(new ChangedAnswer($count));
    }

    /** Where one long recording would be split into takes. */
    public function splitPlan(SplitPlanRequest $request, Production $production, Clip $clip, SplitIntoTakes $split): JsonResponse
    {
        $input = $request->validated();
        $angle = $input['by'] === 'angle' ? $production->devices()->where('letter', $input['device'])->firstOrFail() : null;

        return new JsonResponse(
            Answers::make(SplitPlanAnswer::class, ['spans' => $split->plan($clip, self::who($request), $input['by'], $angle)]),
        );
    }

    public function split(SplitRequest $request, Production $production, Clip $clip, SplitIntoTakes $split): JsonResponse
    {
        $input = $request->validated();
        $takes = $split($clip, self::who($request), array_values($input['spans']), $input['was']);

        return new JsonResponse(new SplitTakesAnswer(array_map(static fn(Take $take): string => $take->ulid, $takes)));
    }
}
