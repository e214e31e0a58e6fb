<?php

declare(strict_types=1);

namespace App\Http\Lineup;

use App\Domain\Lineup\Runs;
use App\Domain\Lineup\StartLineup;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Lineup\Answers\RunRowsAnswer;
use App\Http\Lineup\Answers\RunsAnswer;
use App\Http\Lineup\Answers\WentBackAnswer;
use App\Http\Lineup\Requests\CompareRequest;
use App\Models\LineupRun;
use App\Models\Production;
use App\Models\ShootDay;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Runs of the line-up: all of a day, compared, gone back to. */
final class RunsController extends Controller
{
    public function runs(Production $production, ShootDay $day, Runs $runs): JsonResponse
    {
        return new JsonResponse(Answers::make(RunsAnswer::class, ['runs' => $runs->of($day)]));
    }

    /** With another run, or with what stands now. */
    public function compare(CompareRequest $request, Production $production, LineupRun $lineupRun, Runs $runs): JsonResponse
    {
        $input = $request->validated();
        $other =
            ($input['with'] ?? null) === null
                ? null
                : LineupRun::query()->where('shoot_day_id', $lineupRun->shoot_day_id)->where('ulid', $input['with'])->firstOrFail();

        return new JsonResponse(Answers::make(RunRowsAnswer::class, ['rows' => $runs->compare($lineupRun, $other)]));
    }

    public function goBack(Request $request, Production $production, LineupRun $lineupRun, Runs $runs): JsonResponse
    {
        if (StartLineup::running($lineupRun->day) !== null) {
            throw Problem::refused('lineup.busy', 'This day is being lined up.', 'Wait until it is done, or stop it.');
        }

        return new JsonResponse(Answers::make(WentBackAnswer::class, $runs->goBack($lineupRun, self::who($request))));
    }
}
