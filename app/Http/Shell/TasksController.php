<?php

declare(strict_types=1);

namespace App\Http\Shell;

use App\Domain\Tasks\CancelTask;
use App\Domain\Tasks\StartTask;
use App\Domain\Tasks\TaskKinds;
use App\Http\Controller;
use App\Http\Shell\Answers\TaskAnswer;
use App\Http\Shell\Answers\TasksAnswer;
use App\Models\Production;
use App\Models\Task;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The tray of tasks: what runs, waits, failed and ended today, and its next step. */
final class TasksController extends Controller
{
    private const ENDED_ROWS = 60;

    public function __construct(private readonly TaskKinds $kinds) {}

    public function index(Production $production): JsonResponse
    {
        $open = $production->tasks()->with('user')->whereNull('ended_at')->latest('id')->limit(200)->get();
        $ended = $production
            ->tasks()
            ->with('user')
            ->where('ended_at', '>', now()->subHours(24))
            ->whereNotIn('kind', $this->kinds->quiet())
            ->latest('ended_at')
            ->latest('id')
            ->limit(self::ENDED_ROWS)
            ->get();

        return new JsonResponse(
            new TasksAnswer(
                $open
                    ->reject(fn(Task $task): bool => in_array($task->kind, $this->kinds->quiet(), true))
                    ->concat($ended)
                    ->map(TaskAnswer::of(...))
                    ->values()
                    ->all(),
            ),
        );
    }

    public function show(Production $production, Task $task): JsonResponse
    {
        return new JsonResponse(TaskAnswer::of($task));
    }

    public function cancel(Production $production, Task $task, CancelTask $cancel): JsonResponse
    {
        $cancel($task);

        return new JsonResponse(TaskAnswer::of($task->refresh()));
    }

    /** Tries a failed or stopped task again. */
    public function again(Request $request, Production $production, Task $task, StartTask $start): JsonResponse
    {
        return new JsonResponse(TaskAnswer::of($start->again($task, self::who($request))), 202);
    }
}
