<?php

declare(strict_types=1);

namespace App\Domain\Day;

use App\Models\Card;
use App\Models\Clip;
use App\Models\Handoff;
use App\Models\NoteFile;
use App\Models\ShootDay;
use App\Models\Task;
use Illuminate\Support\Collection;

/** The unfinished tasks that a day's sheet depends on: what is only missing because it has not come in yet is no point. */
final class RunningWork
{
    /** @var Collection<int, Task> */
    public readonly Collection $tasks;

    public function __construct(ShootDay $day)
    {
        /** @var Collection<int, Task> $open */
        $open = Task::query()
            ->where('production_id', $day->production_id)
            ->whereNull('ended_at')
            ->whereIn('kind', ['offload', 'catalogue', 'media', 'lineup', 'notes', 'handoff'])
            ->get();
        $this->tasks = $open->isEmpty() ? $open : $open->filter(static fn(Task $task): bool => self::isOf($task, $day))->values();
    }

    /** Clips of the day may still come in. */
    public function isComingIn(): bool
    {
        return $this->is('offload', 'catalogue');
    }

    /** Places of the day may still be found. */
    public function isLiningUp(): bool
    {
        return $this->is('lineup');
    }

    /** What the log says may still change. */
    public function isLogging(): bool
    {
        return $this->is('notes');
    }

    public function isHandingOff(): bool
    {
        return $this->is('handoff');
    }

    /** @return list<string> */
    public function titles(): array
    {
        return $this->tasks->pluck('title')->all();
    }

    private function is(string ...$kinds): bool
    {
        return $this->tasks->contains(static fn(Task $task): bool => in_array($task->kind, $kinds, true));
    }

    private static function isOf(Task $task, ShootDay $day): bool
    {
        $subject = $task->subject;

        return match ($task->kind) {
            'offload', 'catalogue' => (int) ($subject['day'] ?? 0) === $day->id ||
                Card::query()
                    ->whereKey($subject['card'] ?? 0)
                    ->where('shoot_day_id', $day->id)
                    ->exists(),
            'media' => Clip::query()
                ->whereKey($subject['clip'] ?? 0)
                ->where('shoot_day_id', $day->id)
                ->exists(),
            'lineup' => (int) ($subject['day'] ?? 0) === $day->id,
            'notes' => ($subject['apply'] ?? false) === true &&
                NoteFile::query()
                    ->whereKey($subject['note'] ?? 0)
                    ->where('shoot_day_id', $day->id)
                    ->exists(),
            default => in_array($day->ulid, Handoff::query()->find($subject['handoff'] ?? 0)->chosen['days'] ?? [], true),
        };
    }
}
