<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Domain\Footage\TakeMarkers;
use App\Domain\Log\EditTake;
use App\Domain\Log\SceneCoverage;
use App\Domain\Log\Settle;
use App\Domain\Log\SlateSheet;
use App\Domain\Log\TakeHistory;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Log\Answers\CircledAnswer;
use App\Http\Log\Answers\EditedAnswer;
use App\Http\Log\Answers\ScenesAnswer;
use App\Http\Log\Answers\SettledAnswer;
use App\Http\Log\Answers\SlateSheetAnswer;
use App\Http\Log\Answers\TakeHistoryAnswer;
use App\Http\Log\Answers\TakeMarkerAnswer;
use App\Http\Log\Answers\TakeMarkersAnswer;
use App\Http\Log\Answers\TakesAnswer;
use App\Http\Log\Requests\CircleRequest;
use App\Http\Log\Requests\EditManyRequest;
use App\Http\Log\Requests\HereRequest;
use App\Http\Log\Requests\SettleRequest;
use App\Http\Log\Requests\SomeTakesRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Take;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The slate sheet: what it shows, and every change of takes that a person makes on it. */
final class LogController extends Controller
{
    public function show(Request $request, Production $production, ShootDay $day, SlateSheet $sheet): JsonResponse
    {
        ['takes' => $takes, 'unslated' => $unslated] = $sheet->of($day);

        return new JsonResponse(Answers::make(SlateSheetAnswer::class, compact('takes', 'unslated')));
    }

    /** Some rows of the sheet again, for a page that has the others. */
    public function takes(SomeTakesRequest $request, Production $production, ShootDay $day, SlateSheet $sheet): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(Answers::make(TakesAnswer::class, ['takes' => $sheet->some($day, explode(',', $input['ulids']))]));
    }

    public function scenes(Production $production, ShootDay $day, SceneCoverage $coverage): JsonResponse
    {
        return new JsonResponse(Answers::make(ScenesAnswer::class, ['scenes' => $coverage->of($day)]));
    }

    /** What is marked on the clips of a take. */
    public function markers(Production $production, Take $take): JsonResponse
    {
        return new JsonResponse(new TakeMarkersAnswer(array_map(TakeMarkerAnswer::of(...), TakeMarkers::of($take))));
    }

    public function history(Production $production, Take $take, TakeHistory $history): JsonResponse
    {
        return new JsonResponse(Answers::make(TakeHistoryAnswer::class, ['steps' => $history->of($take)]));
    }

    public function edit(Request $request, Production $production, Take $take, EditTake $edit): JsonResponse
    {
        $edit($take, self::who($request), TakeChanges::of($request->input('changes'), $production->fields()));

        return new JsonResponse(new MadeAnswer($take->ulid));
    }

    /** Many takes in one step: a pasted range, a fill down, a mark on a selection. */
    public function editMany(EditManyRequest $request, Production $production, ShootDay $day, EditTake $edit): JsonResponse
    {
        $input = $request->validated();
        $edits = array_map(
            static fn(mixed $one): array => is_array($one) && is_string($one['take'] ?? null)
                ? [
                    'take' => $one['take'],
                    'changes' => TakeChanges::of($one['changes'] ?? null, $production->fields()),
                ]
                : throw Problem::refused('input.invalid', 'An edit names no take.', 'Load the page again.'),
            array_values($input['edits']),
        );

        return new JsonResponse(new EditedAnswer($edit->many($production, self::who($request), $edits)->count()));
    }

    /** Circling is for everybody who watches; a reviewer may change nothing else of a take. */
    public function circle(CircleRequest $request, Production $production, Take $take, EditTake $edit): JsonResponse
    {
        $input = $request->validated();
        $edit($take, self::who($request), ['status' => $input]);

        return new JsonResponse(new CircledAnswer($take->ulid, $input['now']));
    }

    public function settle(SettleRequest $request, Production $production, Take $take, Settle $settle): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(
            new SettledAnswer($settle($take->day, self::who($request), $take, $input['field'], $input['said'], $input['alike'] ?? false)),
        );
    }

    /** Where a person's cursor stands, for the others on the same day. */
    public function here(HereRequest $request, Production $production, ShootDay $day): JsonResponse
    {
        $input = $request->validated();
        $user = self::who($request);
        Live::tell($production->id, Topic::Here, [
            'day' => $day->ulid,
            'who' => $user->ulid,
            'name' => $user->name,
            'initials' => $user->initials(),
            'row' => $input['row'] ?? null,
        ]);

        return new JsonResponse(new DoneAnswer());
    }
}
