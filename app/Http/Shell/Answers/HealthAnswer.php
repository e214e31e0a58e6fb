<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

/** What is up, how full the disks are, how long the queues: for the machine itself. */
final readonly class HealthAnswer
{
    /**
     * @param  list<string>  $problems  sentences
     * @param  array<string, string>  $parts  how each stands
     * @param  list<array{what: string, free_bytes: int|null, total_bytes: int|null}>  $disks
     * @param  list<array{name: string, waiting: int, oldest_seconds: int}>  $queues
     * @param  array{running: int, waiting: int, failed_today: int}  $tasks
     */
    public function __construct(
        public bool $ok,
        public array $problems,
        public array $parts,
        public array $disks,
        public array $queues,
        public array $tasks,
    ) {}
}
