<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\Task;

/** A reel as a file: being written, or there. Bytes. */
final readonly class ReelExportAnswer
{
    /**
     * @param  'waiting'|'running'|'done'|'failed'|'cancelled'  $state
     * @param  list<string>  $proxies  takes that are shown from their proxies although the recordings were wanted
     * @param  list<array{part: string, name: string}>  $tracks  that are there by themselves
     */
    public function __construct(
        public string $task,
        public string $state,
        public int $done,
        public int $total,
        public string $now,
        public string $message,
        public int $bytes,
        public array $proxies,
        public array $tracks,
        public ?string $ended_at,
    ) {}

    public static function of(Task $task): self
    {
        return new self(
            $task->ulid,
            $task->state,
            (int) $task->done,
            (int) $task->total,
            (string) $task->now,
            (string) ($task->result['message'] ?? ''),
            (int) ($task->result['bytes'] ?? 0),
            $task->result['proxies'] ?? [],
            $task->result['tracks'] ?? [],
            $task->ended_at?->toIso8601String(),
        );
    }
}
