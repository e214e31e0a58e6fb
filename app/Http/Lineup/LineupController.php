<?php

declare(strict_types=1);

namespace App\Http\Lineup;

use App\Domain\Lineup\LineupPage;
use App\Domain\Lineup\OrderLanes;
use App\Domain\Lineup\Scope;
use App\Domain\Lineup\StartLineup;
use App\Domain\Lineup\StateClock;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Lineup\Answers\LineupAnswer;
use App\Http\Lineup\Requests\ApplyClockRequest;
use App\Http\Lineup\Requests\LanesRequest;
use App\Http\Lineup\Requests\StartRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\TaskAnswer;
use App\Models\Production;
use App\Models\ShootDay;
use Illuminate\Http\JsonResponse;

final class LineupController extends Controller
{
    public function show(Production $production, ShootDay $day, LineupPage $page): JsonResponse
    {
        $task = StartLineup::running($day);

        return new JsonResponse(
            Answers::make(LineupAnswer::class, $page->of($day) + ['task' => $task === null ? null : TaskAnswer::of($task)]),
        );
    }

    public function start(StartRequest $request, Production $production, ShootDay $day, StartLineup $start): JsonResponse
    {
        $input = $request->validated();
        $scope = Scope::of($day, $input['scope'] ?? 'day', (string) ($input['key'] ?? ''), array_values($input['clips'] ?? []));
        $task = $start(
            $day,
            self::who($request),
            $scope,
            array_values($input['ways'] ?? ['sound', 'timecode']),
            (bool) ($input['cut'] ?? true),
            $input['anchor'] ?? null,
        );

        return new JsonResponse(TaskAnswer::of($task), 202);
    }

    public function lanes(LanesRequest $request, Production $production, OrderLanes $order): JsonResponse
    {
        $letters = $request->validated()['letters'];
        $order($production, self::who($request), $letters);

        return new JsonResponse(new DoneAnswer());
    }

    public function applyClock(ApplyClockRequest $request, Production $production, ShootDay $day, StateClock $state): JsonResponse
    {
        $input = $request->validated();
        $state->apply($day, $production->devices()->where('letter', $input['device'])->firstOrFail(), self::who($request), $input['for']);

        return new JsonResponse(new DoneAnswer());
    }
}
