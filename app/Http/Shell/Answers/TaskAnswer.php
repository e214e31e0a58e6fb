<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

use App\Models\Task;

/** A task as the tray shows it. */
final readonly class TaskAnswer
{
    /**
     * @param  'waiting'|'running'|'done'|'failed'|'cancelled'  $state
     * @param  array<string, int>|null  $by_store  verified bytes
     * @param  int|null  $card  its id, where it works on one
     */
    public function __construct(
        public string $ulid,
        public string $kind,
        public string $title,
        public string $state,
        public int $done,
        public int $total,
        public int $done_bytes,
        public int $total_bytes,
        public int $copied_bytes,
        public ?array $by_store,
        public int $bytes_per_second,
        public ?float $done_per_minute,
        public string $now,
        public ?string $message,
        public ?string $fix,
        public ?int $card,
        public bool $cancelling,
        public int $tries,
        public ?string $by,
        public ?string $started_at,
        public ?string $ended_at,
        public int $problems,
    ) {}

    public static function of(Task $task): self
    {
        $result = $task->result ?? [];

        return new self(
            ulid: $task->ulid,
            kind: $task->kind,
            title: $task->title,
            state: $task->state,
            done: (int) $task->done,
            total: (int) $task->total,
            done_bytes: (int) $task->done_bytes,
            total_bytes: (int) $task->total_bytes,
            copied_bytes: (int) $task->copied_bytes,
            by_store: $task->by_store,
            bytes_per_second: (int) $task->bytes_per_second,
            done_per_minute: $task->done_per_minute,
            now: (string) $task->now,
            message: $result['message'] ?? null,
            fix: $result['fix'] ?? null,
            card: $task->subject['card'] ?? null,
            cancelling: $task->cancel_asked_at !== null && $task->ended_at === null,
            tries: (int) $task->tries,
            by: $task->relationLoaded('user') ? $task->user?->name : null,
            started_at: $task->started_at?->toIso8601String(),
            ended_at: $task->ended_at?->toIso8601String(),
            problems: count($result['problems'] ?? []),
        );
    }
}
