<?php

declare(strict_types=1);

namespace App\Http\Lineup;

use App\Domain\Lineup\LineupPage;
use App\Domain\Lineup\MovePlacement;
use App\Domain\Tasks\StartTask;
use App\Http\Controller;
use App\Http\Shell\ProductionController;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Task;
use App\Support\Problem;
use Cartella\Core\Time\Ticks;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;

final class LineupController extends Controller
{
    public function show(Production $production, ShootDay $day, LineupPage $page): JsonResponse
    {
        $task = Task::query()->where('production_id', $production->id)->where('kind', 'lineup')->whereNull('ended_at')->latest('id')->first();

        return new JsonResponse($page->of($day) + ['task' => $task !== null && ($task->subject['day'] ?? null) === $day->id ? ProductionController::task($task) : null]);
    }

    public function start(Request $request, Production $production, ShootDay $day, StartTask $start): JsonResponse
    {
        $input = $request->validate(['ways' => ['sometimes', 'array', 'min:1'], 'ways.*' => [Rule::in(['sound', 'timecode', 'clock', 'start'])]]);
        if (Task::query()->where('production_id', $production->id)->where('kind', 'lineup')->whereNull('ended_at')->get()->contains(static fn (Task $task): bool => ($task->subject['day'] ?? null) === $day->id)) {
            throw Problem::refused('lineup.busy', 'This day is being lined up already.', 'Wait until it is done, or stop it.');
        }
        if (! $day->clips()->whereIn('kind', ['picture', 'sound'])->exists()) {
            throw Problem::refused('lineup.empty', 'There is nothing to line up yet.', 'Offload a card first.');
        }
        $task = $start($production, self::who($request), 'lineup', 'Line up day '.$day->number, ['day' => $day->id, 'ways' => implode(',', $input['ways'] ?? ['sound', 'timecode'])]);

        return new JsonResponse(ProductionController::task($task), 202);
    }

    public function nudge(Request $request, Production $production, Clip $clip, MovePlacement $move): JsonResponse
    {
        $input = $request->validate([
            'unit' => ['required', Rule::in(['frame', 'sample', 'ticks'])], 'by' => ['required', 'integer', 'between:-500000000000,500000000000'], 'was_ticks' => ['sometimes', 'nullable', 'integer'],
        ]);
        $by = (int) $input['by'];
        $rate = $production->rate();
        $ticks = match ($input['unit']) {
            'frame' => Ticks::ofFrames($by, $rate),
            'sample' => Ticks::ofSamples($by, 48_000),
            default => $by,
        };
        $placement = $move->nudge($clip, self::who($request), $ticks, isset($input['was_ticks']) ? (int) $input['was_ticks'] : null);

        return new JsonResponse(['start_ticks' => $placement->start_ticks]);
    }

    public function lock(Request $request, Production $production, Clip $clip, MovePlacement $move): JsonResponse
    {
        $input = $request->validate(['locked' => ['required', 'boolean']]);
        $placement = $move->lock($clip, self::who($request), (bool) $input['locked']);

        return new JsonResponse(['locked' => $placement->locked_at !== null]);
    }
}
