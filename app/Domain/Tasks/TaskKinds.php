<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

use App\Models\ShootDay;
use App\Models\Task;

/** The kinds of task, said by the domains that own them: the job that does one, its queue, and which days one is about. */
final class TaskKinds
{
    /** @var array<string, array{job: class-string, queue: string, isOf: (callable(Task, ShootDay): bool)|null, isQuiet: bool}> */
    private array $kinds = [];

    /**
     * @param  class-string  $job  made with the task's id
     * @param  (callable(Task, ShootDay): bool)|null  $isOf  whether a day's sheet depends on such a task; null for none ever
     * @param  bool  $isQuiet  nobody asked for it by name, and it shows where it was asked for
     */
    public function register(string $kind, string $job, string $queue, ?callable $isOf = null, bool $isQuiet = false): void
    {
        $this->kinds[$kind] = ['job' => $job, 'queue' => $queue, 'isOf' => $isOf, 'isQuiet' => $isQuiet];
    }

    /** @return array{job: class-string, queue: string, isOf: (callable(Task, ShootDay): bool)|null, isQuiet: bool} */
    public function of(string $kind): array
    {
        return $this->kinds[$kind] ?? throw new \LogicException("No domain registered tasks of kind $kind.");
    }

    /** @return list<string> kinds that a day can depend on */
    public function ofDays(): array
    {
        return array_keys(array_filter($this->kinds, static fn(array $kind): bool => $kind['isOf'] !== null));
    }

    public function isOf(Task $task, ShootDay $day): bool
    {
        $isOf = $this->of($task->kind)['isOf'];

        return $isOf !== null && $isOf($task, $day);
    }

    /** @return list<string> */
    public function quiet(): array
    {
        return array_keys(array_filter($this->kinds, static fn(array $kind): bool => $kind['isQuiet']));
    }
}
