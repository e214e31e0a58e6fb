<?php

declare(strict_types=1);

namespace App\Http\Assembly;

use App\Domain\Assembly\AngleCuts;
use App\Domain\Assembly\Events;
use App\Http\Answers;
use App\Http\Assembly\Answers\EventAnswer;
use App\Http\Assembly\Answers\EventsAnswer;
use App\Http\Assembly\Answers\WallAnswer;
use App\Http\Assembly\Requests\BeginAnglesRequest;
use App\Http\Assembly\Requests\LayAnglesRequest;
use App\Http\Assembly\Requests\TurnRequest;
use App\Http\Controller;
use App\Http\Sequences\Answers\PiecesAddedAnswer;
use App\Http\Sequences\Answers\SequenceEditedAnswer;
use App\Http\Sequences\Answers\SequenceStepAnswer;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\StoredSequence;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;

/** Events that several cameras saw, and the cut between them. */
final class AnglesController extends Controller
{
    public function index(Production $production, ShootDay $day): JsonResponse
    {
        $cuts = StoredSequence::query()
            ->where('shoot_day_id', $day->id)
            ->where('kind', 'angle_cut')
            ->whereNull('removed_at')
            ->latest('id')
            ->get();

        return new JsonResponse(new EventsAnswer(Answers::list(EventAnswer::class, Events::of($day)), EventsAnswer::cutsOf($cuts)));
    }

    public function store(BeginAnglesRequest $request, Production $production, ShootDay $day, AngleCuts $cuts): JsonResponse
    {
        $day->setRelation('production', $production);

        return new JsonResponse(new MadeAnswer($cuts->make($day, self::who($request), $request->validated('event'))->ulid), 201);
    }

    public function wall(Production $production, StoredSequence $sequence, AngleCuts $cuts): JsonResponse
    {
        return new JsonResponse(WallAnswer::of($sequence, $cuts->event($sequence)));
    }

    public function turn(TurnRequest $request, Production $production, StoredSequence $sequence, AngleCuts $cuts): JsonResponse
    {
        $input = $request->validated();
        $step = $cuts->turn(
            $sequence->setRelation('production', $production),
            self::who($request),
            isset($input['step']) ? (int) $input['step'] : null,
            (int) $input['from_ticks'],
            (int) $input['to_ticks'],
            $input['angle'],
            $input['takes'],
        );

        return new JsonResponse(new SequenceEditedAnswer($step === null ? null : SequenceStepAnswer::of($step)));
    }

    public function lay(LayAnglesRequest $request, Production $production, StoredSequence $sequence, AngleCuts $cuts): JsonResponse
    {
        $into = StoredSequence::query()
            ->where('production_id', $production->id)
            ->whereNull('removed_at')
            ->whereIn('kind', ['cut', 'string_out'])
            ->where('ulid', $request->validated('into'))
            ->first();
        if ($into === null) {
            throw Problem::missing('That cut', 'Choose another one, or make one.');
        }
        $at = $request->validated('at_ticks');
        ['end' => $end, 'rate' => $rate, 'others' => $others] = $cuts->lay(
            $sequence,
            $into,
            self::who($request),
            $at === null ? null : (int) $at,
        );

        return new JsonResponse(new PiecesAddedAnswer($end, null, $rate->name, $others));
    }
}
