<?php

declare(strict_types=1);

namespace App\Http\Assembly;

use App\Domain\Assembly\Beneath;
use App\Domain\Assembly\CutSources;
use App\Domain\Assembly\StringOut;
use App\Domain\Sequences\SequenceStore;
use App\Domain\Sequences\TrackPlan;
use App\Http\Assembly\Answers\BeneathAnswer;
use App\Http\Assembly\Answers\CutClipAnswer;
use App\Http\Assembly\Answers\CutSourcesAnswer;
use App\Http\Assembly\Answers\CutTakeAnswer;
use App\Http\Assembly\Answers\InsteadAnswer;
use App\Http\Assembly\Answers\StringOutAnswer;
use App\Http\Assembly\Answers\TrackPlanAnswer;
use App\Http\Assembly\Requests\StringOutRequest;
use App\Http\Assembly\Requests\TrackPlanRequest;
use App\Http\Controller;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\RateAnswer;
use App\Models\Production;
use App\Models\StoredSequence;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The cut: what its items are of, what lies under its playhead, string-outs, and the tracks of new ones. */
final class AssemblyController extends Controller
{
    public function sources(Production $production, StoredSequence $sequence, CutSources $sources): JsonResponse
    {
        ['rate' => $rate, 'clips' => $clips, 'takes' => $takes] = $sources->of($sequence);

        return new JsonResponse(
            new CutSourcesAnswer(
                RateAnswer::of($rate),
                array_map(CutClipAnswer::of(...), $clips),
                array_map(CutTakeAnswer::of(...), $takes),
            ),
        );
    }

    public function beneath(
        Request $request,
        Production $production,
        StoredSequence $sequence,
        SequenceStore $store,
        Beneath $beneath,
    ): JsonResponse {
        $cut = $store->read($sequence);
        [$track, $index] = [$request->integer('track'), $request->integer('index')];
        $found = isset($cut->tracks[$track]->items[$index]) ? $beneath->of($production, $cut, $track, $index) : null;

        return new JsonResponse(
            $found === null
                ? new BeneathAnswer(null, null, null, '', 0, 0, [])
                : BeneathAnswer::of($found, array_map(InsteadAnswer::of(...), $found['instead']), $cut, $track, $index),
        );
    }

    public function stringOut(StringOutRequest $request, Production $production, StringOut $make): JsonResponse
    {
        $user = self::who($request);
        $input = $request->validated();
        ['cut' => $cut, 'left' => $left] = match ($input['of']) {
            'circled' => $make->ofCircled($production, $user, $input['scene'] ?? null),
            'line' => $make->ofLine($production, $user, $input['scene'], (int) $input['line']),
            default => $make->ofKeyword($production, $user, trim($input['keyword'])),
        };

        return new JsonResponse(new StringOutAnswer($cut->ulid, $cut->name, $left), 201);
    }

    public function plan(Production $production): JsonResponse
    {
        return new JsonResponse(new TrackPlanAnswer(TrackPlan::of($production), $production->track_plan !== null, TrackPlan::ROLES));
    }

    public function setPlan(TrackPlanRequest $request, Production $production): JsonResponse
    {
        TrackPlan::set($production, self::who($request), $request->validated('tracks'));

        return new JsonResponse(new DoneAnswer());
    }
}
