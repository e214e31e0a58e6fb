<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Tasks\StartTask;
use App\Models\ShootDay;
use App\Models\Task;
use App\Models\User;
use App\Support\Problem;
use Illuminate\Support\Facades\DB;

/** Begins a run of line-up and sends it to the workers; one at a time for a day. */
final class StartLineup
{
    public function __construct(private readonly StartTask $start, private readonly Runs $runs) {}

    /**
     * @param  non-empty-list<string>  $ways  in their order
     * @param  bool  $cut  into takes, when it is done
     * @param  string|null  $anchor  ULID of the clip whose clock counts
     *
     * @throws Problem if the day is being lined up, or the anchor is not of it
     */
    public function __invoke(ShootDay $day, User $user, Scope $scope, array $ways, bool $cut = true, ?string $anchor = null): Task
    {
        if (self::running($day) !== null) {
            throw Problem::refused('lineup.busy', 'This day is being lined up already.', 'Wait until it is done, or stop it.');
        }
        if ($anchor !== null && Scope::clips($day)->where('ulid', $anchor)->doesntExist()) {
            throw Problem::refused(
                'lineup.anchor',
                'The clip that is to be the anchor is not of this day.',
                'Choose a recording of the day.',
            );
        }

        return DB::transaction(function () use ($day, $user, $scope, $ways, $cut, $anchor): Task {
            $run = $this->runs->begin($day, $user, $scope, $ways);

            return ($this->start)(
                $day->production,
                $user,
                'lineup',
                'Line up ' . $scope->words($day),
                ['day' => $day->id, 'ways' => implode(',', $ways), 'run' => $run->id, 'cut' => $cut, 'anchor' => $anchor] +
                    $scope->toTask(),
                "lineup.$day->id",
            );
        });
    }

    public static function running(ShootDay $day): ?Task
    {
        /** @var \Illuminate\Database\Eloquent\Collection<int, Task> $tasks */
        $tasks = Task::query()
            ->where('production_id', $day->production_id)
            ->where('kind', 'lineup')
            ->whereNull('ended_at')
            ->latest('id')
            ->get();

        return $tasks->first(static fn(Task $task): bool => ($task->subject['day'] ?? null) === $day->id);
    }
}
